<script lang="ts">
  import { broughtBack } from '$lib/core/sale/exchange';
  import { standingOf } from '$lib/core/slip/price-slip';
  import { looks } from '$lib/ui/frame/looks.svelte';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { useStall } from '../../stall.svelte';
  import BackLines from '../BackLines.svelte';
  import TipRow from '../pay/TipRow.svelte';

  const stall = useStall();
  const { slip } = stall;
  const money = $derived(stall.money);
  const quote = $derived(slip.quote);
  const cash = $derived(quote?.cash);
  const hasTwoPrices = $derived(
    quote !== null && (quote.card.total !== quote.cash.total || stall.business.uplift !== '0'),
  );
  const brought = $derived(broughtBack(slip.current));
  const standing = $derived(standingOf(slip.current));
  const off = $derived(cash?.lines.reduce((all, { gross, net }) => all + gross - net, 0) ?? 0);
  let isTurned = $state(looks.isTurned);
</script>

<div class="bg-base-100 fixed inset-0 z-40 flex flex-col">
  <div
    class={[
      'flex min-h-0 flex-1 flex-col gap-4 overflow-y-auto p-5 md:p-8',
      isTurned && 'rotate-180',
    ]}
    data-testid="for-customer"
  >
    <div class="flex items-baseline justify-between gap-4">
      <h1>{stall.business.name}</h1>
      <p class="soft">{stall.event?.name ?? ''}</p>
    </div>
    <table class="w-full text-lg md:text-xl">
      <thead class="soft text-left text-base">
        <tr>
          <th class="py-1 font-normal" scope="col">Goods</th>
          {#if hasTwoPrices}
            <th class="py-1 text-right font-normal" scope="col">in cash</th>
            <th class="py-1 text-right font-normal" scope="col">by card</th>
          {:else}
            <th class="py-1 text-right font-normal" scope="col">comes to</th>
          {/if}
        </tr>
      </thead>
      <tbody>
        {#each slip.current.lines as line, at (line.key)}
          <tr class="border-base-300 border-t">
            <td class="py-2">
              {quantityWords(line.quantity, line.unit)} × {line.name}{line.detail === ''
                ? ''
                : `, ${line.detail}`}
              {#each line.extras ?? [] as extra (extra.name)}
                <span class="soft block text-base">with {extra.name}</span>
              {/each}
            </td>
            <td class="figure py-2 text-right align-top"
              >{money.figure(cash?.lines[at]?.net ?? 0)}</td
            >
            {#if hasTwoPrices}
              <td class="figure py-2 text-right align-top"
                >{money.figure(quote?.card.lines[at]?.net ?? 0)}</td
              >
            {/if}
          </tr>
        {/each}
        {#if cash !== undefined && cash.serviceCharge !== 0}
          <tr class="border-base-300 border-t">
            <td class="py-2">Service charge</td>
            <td class="figure py-2 text-right">{money.figure(cash.serviceCharge)}</td>
            {#if hasTwoPrices}
              <td class="figure py-2 text-right">{money.figure(quote?.card.serviceCharge ?? 0)}</td>
            {/if}
          </tr>
        {/if}
        {#each stall.taxes as tax (tax.id)}
          {@const here = cash?.taxes.find(({ id }) => id === tax.id)}
          {#if here !== undefined}
            <tr class="soft border-base-300 border-t text-base">
              <td class="py-1"
                >{stall.business.pricesIncludeTax ? 'of which' : 'and'}
                {tax.name} ({tax.rate} %)</td
              >
              <td class="figure py-1 text-right">{money.figure(here.amount)}</td>
              {#if hasTwoPrices}
                <td class="figure py-1 text-right"
                  >{money.figure(
                    quote?.card.taxes.find(({ id }) => id === tax.id)?.amount ?? 0,
                  )}</td
                >
              {/if}
            </tr>
          {/if}
        {/each}
      </tbody>
    </table>
    <BackLines />
    {#if off > 0}
      <p class="soft">
        {money.text(off)} off{standing === null ? '' : `, with ${standing.name}`}
      </p>
    {/if}
    <div class="mt-auto"><TipRow isLarge /></div>
    <div class="flex flex-wrap items-end justify-between gap-4">
      <p>
        <span class="soft block"
          >{slip.over > 0 ? 'You get back' : hasTwoPrices ? 'In cash' : 'To pay'}</span
        >
        <span class="amount text-6xl md:text-7xl" data-testid="customer-total"
          >{money.text(slip.over > 0 ? slip.over : (cash?.total ?? 0) - brought)}</span
        >
      </p>
      {#if hasTwoPrices && brought === 0}
        <p class="text-right">
          <span class="soft block">By card</span>
          <span class="amount text-5xl md:text-6xl">{money.text(quote?.card.total ?? 0)}</span>
        </p>
      {/if}
    </div>
  </div>
  <div class="border-base-300 flex gap-2 border-t p-3">
    <a class="btn btn-quiet flex-1" href="/counter">Back to the counter</a>
    <button
      type="button"
      class="btn btn-quiet"
      aria-pressed={isTurned}
      onclick={() => (isTurned = !isTurned)}>Turn round</button
    >
  </div>
</div>

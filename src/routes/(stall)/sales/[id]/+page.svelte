<script lang="ts">
  import { page } from '$app/state';
  import { live } from '$lib/device/live.svelte';
  import { dayWords, timeWords } from '$lib/ui/words/date-words';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { useStall } from '../../stall.svelte';

  const stall = useStall();
  const { books } = stall.db;
  const money = $derived(stall.money);
  const found = live(() => {
    const id = page.params.id ?? '';
    return async () => {
      const sale = await books.sales.get(id);
      if (sale === undefined) return null;
      const lines = await books.saleLines.where('sale').equals(id).sortBy('line');
      const payments = (await books.payments.bulkGet([...sale.payments])).flatMap((part) =>
        part ? [part] : [],
      );
      const customer =
        sale.customer === null ? undefined : await books.customers.get(sale.customer);
      return { sale, lines, payments, customer };
    };
  }, null);
  const event = $derived(stall.events.find(({ id }) => id === found.value?.sale.event));
</script>

<div class="overflow-y-auto p-4 pt-8 md:p-8 md:pt-10">
  {#if found.value !== null}
    {@const { sale, lines, payments, customer } = found.value}
    <article class="paper-shade mx-auto max-w-md">
      <div class="paper torn-below p-5 pb-8">
        <p class="soft text-center text-sm">{stall.business.receiptHead}</p>
        <h1 class="mt-3 text-center">Sale {sale.number}</h1>
        <p class="soft mb-4 text-center">
          {dayWords(sale.day, stall.business.locale)}, {timeWords(
            sale.at,
            stall.business.locale,
            event?.timeZone ?? stall.business.timeZone,
          )}
          · {event?.name ?? 'no event'} · {stall.nameOf(sale.by)}
        </p>
        <ul>
          {#each lines as line (line.line)}
            <li
              class="border-base-300 grid grid-cols-[auto_1fr_auto] gap-3 border-b border-dashed py-2"
            >
              <span class="figure">{quantityWords(line.quantity, line.unit)}</span>
              <span>
                {line.name} <span class="soft">{line.detail}</span>
                <span class="soft block text-sm empty:hidden"
                  >{[
                    ...line.extras.map((extra) => `with ${extra.name}`),
                    line.listPrice === null
                      ? ''
                      : `${money.figure(line.price)}, was ${money.figure(line.listPrice)}: ${line.reason}`,
                    line.discount === 0 ? '' : `less ${money.figure(line.discount)}`,
                    line.note === '' ? '' : `“${line.note}”`,
                    line.seller === null ? '' : `sold by ${stall.nameOf(line.seller)}`,
                  ]
                    .filter((part) => part !== '')
                    .join(' · ')}</span
                >
              </span>
              <span class="figure"
                >{money.figure(stall.business.pricesIncludeTax ? line.total : line.net)}</span
              >
            </li>
          {/each}
        </ul>
        {#if sale.standingName !== '' || sale.note !== '' || customer !== undefined}
          <p class="soft mt-2 text-sm">
            {[customer?.name ?? '', sale.standingName, sale.note]
              .filter((part) => part !== '')
              .join(' · ')}
          </p>
        {/if}
        <dl class="figure mt-3 grid grid-cols-[1fr_auto] gap-y-1">
          {#each sale.taxes as tax (tax.id)}
            <dt class="soft">{tax.name} {tax.rate} % on {money.figure(tax.base)}</dt>
            <dd class="soft text-right">{money.figure(tax.amount)}</dd>
          {/each}
          {#if sale.service !== 0}
            <dt class="soft">Service charge</dt>
            <dd class="soft text-right">{money.figure(sale.service)}</dd>
          {/if}
          <dt class="text-lg font-[650]">Total</dt>
          <dd class="amount text-right text-2xl">{money.text(sale.total)}</dd>
          {#each payments as part (part.id)}
            <dt class="soft">Cash</dt>
            <dd class="soft text-right">{money.figure(part.charge)}</dd>
            {#if part.change > 0}
              <dt class="soft">Change</dt>
              <dd class="soft text-right">{money.figure(part.change)}</dd>
            {/if}
          {/each}
        </dl>
        <p class="soft mt-5 text-center text-sm">{stall.business.receiptFoot}</p>
      </div>
    </article>
  {:else if found.isRead}
    <p class="sheet max-w-xl">
      This sale is not on this device. <a class="plain" href="/find">Find another</a>
    </p>
  {/if}
</div>

<script lang="ts">
  import type { FoundSale } from '$lib/core/sale/sale-document';
  import { findSales } from '$lib/device/find-sales';
  import { live } from '$lib/device/live.svelte';
  import { askSales } from '$lib/device/sale-document';
  import { shortDayWords, timeWords } from '$lib/ui/words/date-words';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  let typed = $state('');
  const found = live(() => {
    const wanted = typed;
    const { currency } = stall.business;
    return () => findSales(db, wanted, currency);
  }, []);
  let field = $state<HTMLInputElement>();
  $effect(() => {
    if (matchMedia('(pointer: fine)').matches) field?.focus();
  });

  /** What the server has besides, once nothing has been typed for a moment; `away` without network. */
  type Older = 'not asked' | 'asking' | 'away' | readonly FoundSale[];
  let older = $state.raw<Older>('not asked');
  $effect(() => {
    const wanted = typed.trim();
    older = wanted === '' ? 'not asked' : 'asking';
    if (wanted === '') return;
    let isOld = false;
    const timer = setTimeout(() => {
      void askSales(stall.transport, wanted).then((sales) => {
        if (!isOld) older = sales ?? 'away';
      });
    }, 400);
    return () => {
      isOld = true;
      clearTimeout(timer);
    };
  });
  const here = $derived(new Set(found.value.map(({ sale }) => sale.id)));
  const elsewhere = $derived(
    typeof older === 'string' ? [] : older.filter(({ sale }) => !here.has(sale.id)),
  );
</script>

{#snippet row({ sale, lines, isVoid, back }: FoundSale)}
  <li>
    <a
      href="/sales/{sale.id}"
      class="sheet grid grid-cols-[auto_minmax(0,1fr)_auto] items-baseline gap-x-4"
    >
      <b class="code">{sale.number}</b>
      <span class="truncate">{lines.map((line) => line.name).join(', ')}</span>
      <span class={['amount', isVoid && 'line-through']}
        >{money.text(sale.total + sale.uplift)}</span
      >
      <span></span>
      <span class="soft text-sm">
        {shortDayWords(sale.day, stall.business.locale)}, {timeWords(
          sale.at,
          stall.business.locale,
          stall.business.timeZone,
        )} · {stall.nameOf(sale.by)}{isVoid ? ' · void' : ''}{back === 0
          ? ''
          : ` · ${money.text(back)} given back`}
      </span>
    </a>
  </li>
{/snippet}

<div class="page gap-5">
  <h1>Find</h1>
  <label class="grid max-w-xl gap-1 font-[560]">
    Sale by number, item or amount
    <input
      bind:this={field}
      class="input w-full text-lg"
      bind:value={typed}
      autocomplete="off"
      maxlength="100"
      placeholder="D4-17, lavender, 13.50"
      aria-describedby="find-by"
    />
  </label>
  <p id="find-by" class="soft text-sm">
    Also by who sold or bought, a day such as 2026-05-01, a payment’s reference or a card’s last
    four.
  </p>
  <ul
    class="grid max-w-3xl grid-cols-[minmax(0,1fr)] gap-2"
    aria-label="On this device"
    data-testid="found-here"
  >
    {#each found.value as each (each.sale.id)}
      {@render row(each)}
    {:else}
      {#if found.isRead}
        <li class="soft">
          {typed.trim() === ''
            ? 'Sales of this and recent events show here, newest first.'
            : `No sale on this device fits “${typed}”.`}
        </li>
      {/if}
    {/each}
  </ul>
  {#if older !== 'not asked'}
    <section class="grid max-w-3xl grid-cols-[minmax(0,1fr)] gap-2" aria-labelledby="older">
      <h2 id="older">On the server</h2>
      <p class="soft" role="status">
        {#if older === 'asking'}Asking the server for older ones …
        {:else if older === 'away'}No network: sales of events more than two weeks past are with the
          server.
        {:else if elsewhere.length === 0}The server has no other that fits.
        {:else}{elsewhere.length}
          {elsewhere.length === 1 ? 'that is' : 'that are'} not on this device, newest first.{/if}
      </p>
      <ul class="grid grid-cols-[minmax(0,1fr)] gap-2" data-testid="found-older">
        {#each elsewhere as each (each.sale.id)}{@render row(each)}{/each}
      </ul>
    </section>
  {/if}
</div>

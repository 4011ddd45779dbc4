<script lang="ts">
  import { findSales } from '$lib/device/find-sales';
  import { live } from '$lib/device/live.svelte';
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
</script>

<div class="page gap-5">
  <h1>Find</h1>
  <label class="grid max-w-xl gap-1 font-[560]">
    Sale by number, item or amount
    <input
      bind:this={field}
      class="input w-full text-lg"
      bind:value={typed}
      autocomplete="off"
      placeholder="D4-17, lavender, 13.50"
    />
  </label>
  <ul class="grid max-w-3xl grid-cols-[minmax(0,1fr)] gap-2">
    {#each found.value as { sale, lines, isVoid } (sale.id)}
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
            )} · {stall.nameOf(sale.by)}{isVoid ? ' · void' : ''}
          </span>
        </a>
      </li>
    {:else}
      {#if found.isRead}
        <li class="soft">
          {typed.trim() === ''
            ? 'Sales of this and recent events show here, newest first.'
            : `No sale on this device fits “${typed}”. Documents of events more than two weeks past are with the server.`}
        </li>
      {/if}
    {/each}
  </ul>
</div>

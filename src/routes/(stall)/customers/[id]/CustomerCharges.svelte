<!-- What a customer is charged again and again. -->
<script lang="ts">
  import { daysToCome, priceOf } from '$lib/core/charge/set-charge';
  import { chargesHere, type Charge } from '$lib/device/charges';
  import { live } from '$lib/device/live.svelte';
  import { oftenWords } from '$lib/ui/words/charge-words';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { useStall } from '../../stall.svelte';

  interface Props {
    customer: string;
    /** The ids of all their records. */
    records: readonly string[];
  }
  const { customer, records }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const { locale } = $derived(stall.business);
  const found = live(
    () => {
      const who = records;
      return () => chargesHere(stall.db, who);
    },
    [] as readonly Charge[],
  );
  function standsWords(charge: Charge): string {
    const [next] = daysToCome(charge, 1);
    if (!charge.isActive) return 'halted';
    return next === undefined ? 'ended' : `next ${shortDayWords(next, locale)}`;
  }
</script>

<section class="sheet grid gap-3" aria-labelledby="charges">
  <div class="flex flex-wrap items-baseline justify-between gap-3">
    <h2 id="charges">Standing charges</h2>
    <a class="plain" href="/invoices/charges/new?customer={customer}">Set one up</a>
  </div>
  {#if found.value.length > 0}
    <ul class="grid" data-testid="customer-charges">
      {#each found.value as charge (charge.id)}
        <li class="border-base-300 border-b border-dashed last:border-0">
          <a
            class="grid min-h-12 grid-cols-[1fr_auto] items-baseline gap-x-4 py-2 no-underline"
            href="/invoices/charges/{charge.id}"
          >
            <span
              ><b>{charge.lines[0]?.name}</b>
              <span class="soft">{oftenWords(charge)}, {standsWords(charge)}</span></span
            >
            <span class="figure">{money.figure(priceOf(charge))}</span>
          </a>
        </li>
      {/each}
    </ul>
  {/if}
</section>

<!-- What was quoted to a customer, is kept for them, or is for them to collect. -->
<script lang="ts">
  import { isOpen, type OrderNow } from '$lib/core/order/order-state';
  import { ordersOf } from '$lib/device/orders';
  import { live } from '$lib/device/live.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { SORT_WORDS } from '$lib/ui/words/order-words';
  import OrderStands from '../../orders/OrderStands.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    /** The ids of all their records. */
    records: readonly string[];
  }
  const { records }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const { locale } = $derived(stall.business);
  const found = live(
    () => {
      const [who, { today }] = [records, stall];
      return () => ordersOf(stall.db, who, today);
    },
    [] as readonly OrderNow[],
  );
  const shown = $derived(
    found.value.toSorted((a, b) => Number(isOpen(b)) - Number(isOpen(a))).slice(0, 20),
  );
</script>

{#if shown.length > 0}
  <section class="sheet grid gap-3" aria-labelledby="orders">
    <h2 id="orders">Quoted, kept, ordered</h2>
    <ul class="grid" data-testid="customer-orders">
      {#each shown as now (now.order.id)}
        <li class="border-base-300 border-b border-dashed last:border-0">
          <a
            class="grid min-h-12 grid-cols-[1fr_auto] items-baseline gap-x-4 py-2 no-underline"
            href="/orders/{now.order.id}"
          >
            <span
              ><b>{now.order.number}</b>
              <span class="soft"
                >{SORT_WORDS[now.order.sort]}{now.order.until === ''
                  ? ''
                  : `, until ${shortDayWords(now.order.until, locale)}`}</span
              ></span
            >
            <span class="figure">{money.figure(now.total)}</span>
            <span class="col-span-2 flex flex-wrap gap-x-4"><OrderStands {now} /></span>
          </a>
        </li>
      {/each}
    </ul>
  </section>
{/if}

<!-- What is quoted to whoever is on the slip, kept for them, or theirs to collect: one tap away. -->
<script lang="ts">
  import { isOpen, type OrderNow } from '$lib/core/order/order-state';
  import { personOf } from '$lib/device/customer-records';
  import { ordersOf } from '$lib/device/orders';
  import { live } from '$lib/device/live.svelte';
  import { SORT_WORDS } from '$lib/ui/words/order-words';
  import OrderStands from '../orders/OrderStands.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    customer: string;
  }
  const { customer }: Props = $props();
  const stall = useStall();
  const AT_MOST = 5;
  const found = live(
    () => {
      const [who, { today }] = [customer, stall];
      return async () => ordersOf(stall.db, (await personOf(stall.db, who)).records, today);
    },
    [] as readonly OrderNow[],
  );
  const open = $derived(
    found.value
      .filter((now) => isOpen(now) && now.order.id !== stall.slip.current.handsOver?.id)
      .slice(0, AT_MOST),
  );
</script>

{#if open.length > 0}
  <ul class="grid" data-testid="customers-open">
    {#each open as now (now.order.id)}
      <li>
        <a
          class="hover:bg-base-200 flex min-h-12 flex-wrap items-center gap-x-3 rounded-lg px-3 no-underline"
          href="/orders/{now.order.id}"
        >
          <b>{now.order.number}</b>
          <span class="soft">{SORT_WORDS[now.order.sort]}</span>
          <OrderStands {now} />
          <span class="figure ml-auto">{stall.money.text(now.due)}</span>
        </a>
      </li>
    {/each}
  </ul>
{/if}

<!-- What customers collect at today's event, a tap away. -->
<script lang="ts">
  import { isOpen } from '$lib/core/order/order-state';
  import { allOrders } from '$lib/device/orders';
  import { live } from '$lib/device/live.svelte';
  import { useStall } from './stall.svelte';

  interface Props {
    event: string;
  }
  const { event }: Props = $props();
  const stall = useStall();
  const here = live(() => {
    const [at, { today }] = [event, stall];
    return async () =>
      (await allOrders(stall.db, today)).filter(
        (now) => now.order.collectAt === at && now.order.sort !== 'quote' && isOpen(now),
      ).length;
  }, 0);
</script>

{#if here.value > 0}
  <p class="sheet flex flex-wrap items-center justify-between gap-3" data-testid="todays-orders">
    <span
      >{here.value === 1 ? 'One order is' : `${String(here.value)} orders are`} collected here.</span
    >
    <a class="btn btn-quiet" href="/waiting">Who for</a>
  </p>
{/if}

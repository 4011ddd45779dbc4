<!-- Orders that nobody came for, and those of which more was handed over than there was. -->
<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { orderEnds, type OrderEnd } from '$lib/core/loose-end/order-ends';
  import { allOrders } from '$lib/device/orders';
  import { live } from '$lib/device/live.svelte';
  import { orderEndWords } from '$lib/ui/words/order-words';
  import { useStall } from '../stall.svelte';
  import SeenCard from './SeenCard.svelte';

  interface Props {
    settlements: readonly Row<'settlements'>[];
    isShown: (looseEnd: string) => boolean;
    /** Told how many there are. */
    onFound: (count: number) => void;
  }
  const { settlements, isShown, onFound }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  const orders = live(() => {
    const { today } = stall;
    return () => allOrders(db, today);
  }, []);
  const events = live(() => () => db.books.events.toArray(), []);
  const ends = $derived(orderEnds(orders.value, events.value, settlements, stall.today));
  $effect(() => onFound(ends.length));
  const eventOf = ({ now }: OrderEnd): string =>
    events.value.find(({ id }) => id === now.order.collectAt)?.name ?? 'an event';
</script>

{#each ends.filter(({ looseEnd }) => isShown(looseEnd)) as end (end.looseEnd)}
  <SeenCard
    looseEnd={end.looseEnd}
    label="Order {end.now.order.number}"
    title={end.why === 'twice'
      ? `More was handed over of ${end.now.order.number} than was ordered`
      : `${end.now.order.number} was not collected`}
    {settlements}
  >
    <p>
      {orderEndWords(end, eventOf(end), stall.business.locale)}
      {#if end.now.deposit > 0}{stall.money.text(end.now.deposit)} was paid for it in advance.{/if}
      <a class="plain" href="/orders/{end.now.order.id}">Open it</a>
    </p>
  </SeenCard>
{/each}

<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import type { CardLooseEnd } from '$lib/core/payment/card-state';
  import { customerOf } from '$lib/device/customer-records';
  import { live } from '$lib/device/live.svelte';
  import { shortDayWords, timeWords } from '$lib/ui/words/date-words';
  import { cardEndStory, CARD_END_TITLES } from '$lib/ui/words/payment-words';
  import { useStall } from '../stall.svelte';
  import SeenCard from './SeenCard.svelte';

  interface Props {
    end: CardLooseEnd;
    settlements: readonly Row<'settlements'>[];
  }
  const { end, settlements }: Props = $props();
  const stall = useStall();
  const { books } = stall.db;
  const { payment } = $derived(end);
  const NOTHING: { sale?: Row<'sales'> | undefined; customer?: Row<'customers'> | undefined } = {};
  const found = live(() => {
    const { slip, customer } = payment;
    return async () => {
      const sale = await books.sales.filter((each) => each.slip === slip).first();
      const who = customer ?? sale?.customer ?? null;
      return { sale, customer: who === null ? undefined : await customerOf(stall.db, who) };
    };
  }, NOTHING);
  const event = $derived(stall.events.find(({ id }) => id === payment.event));
  const { locale } = $derived(stall.business);
</script>

<SeenCard
  looseEnd="card:{payment.id}"
  label="A card payment"
  title={CARD_END_TITLES[end.is]}
  {settlements}
>
  <p>{cardEndStory(end, stall.money)}</p>
  <p class="soft text-sm">
    {shortDayWords(payment.at.slice(0, 10), locale)}
    {timeWords(payment.at, locale, event?.timeZone ?? stall.business.timeZone)} · {event?.name ??
      'no event'} · {stall.nameOf(payment.by)}
    {#if found.value.sale}
      · <a class="plain" href="/sales/{found.value.sale.id}">{found.value.sale.number}</a>
    {/if}
    {#if found.value.customer}
      · <a class="plain" href="/customers/{found.value.customer.id}">{found.value.customer.name}</a>
      {found.value.customer.phone}
      {found.value.customer.email}
    {/if}
  </p>
</SeenCard>

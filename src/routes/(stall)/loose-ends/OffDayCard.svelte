<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import type { OffDay } from '$lib/core/loose-end/off-day';
  import { dayWords } from '$lib/ui/words/date-words';
  import { useStall } from '../stall.svelte';
  import SeenCard from './SeenCard.svelte';

  interface Props {
    off: OffDay;
    settlements: readonly Row<'settlements'>[];
  }
  const { off, settlements }: Props = $props();
  const stall = useStall();
  const { locale } = $derived(stall.business);
</script>

<SeenCard
  looseEnd={off.looseEnd}
  label="Sales on another day"
  title="Sales on a day that is none of the event’s"
  {settlements}
>
  <p>
    {off.sales === 1 ? 'One sale' : `${String(off.sales)} sales`} of {stall.money.text(off.takings)} at
    {off.event.name}
    {off.sales === 1 ? 'is' : 'are'} dated
    {dayWords(off.day, locale)}. Either a device’s clock was wrong, or the event’s days are: put
    right what is wrong, and say which it was.
  </p>
</SeenCard>

<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import type { LeftOnSlip } from '$lib/core/loose-end/left-on-slip';
  import { quantityText } from '$lib/core/money/units';
  import { timeWords } from '$lib/ui/words/date-words';
  import { useStall } from '../stall.svelte';
  import SeenCard from './SeenCard.svelte';

  interface Props {
    left: LeftOnSlip;
    settlements: readonly Row<'settlements'>[];
  }
  const { left, settlements }: Props = $props();
  const stall = useStall();
  const { locale, timeZone } = $derived(stall.business);
  const { slip, lines } = $derived(left);
</script>

<SeenCard
  looseEnd={left.looseEnd}
  label="Goods on a slip that is gone"
  title="Something was put on a slip that had been rung up elsewhere"
  {settlements}
>
  <p>
    {slip.name === '' ? 'A slip' : slip.name} was ended by {stall.nameOf(slip.by)}, {timeWords(
      slip.at,
      locale,
      timeZone,
    )}, on a device that did not know of these. Nobody has been charged for them: ring them up, or
    say why not.
  </p>
  <ul>
    {#each lines as { name, detail, quantity, price }, at (at)}
      <li>{quantityText(quantity)} × {name} {detail}, {stall.money.text(price)} each</li>
    {/each}
  </ul>
</SeenCard>

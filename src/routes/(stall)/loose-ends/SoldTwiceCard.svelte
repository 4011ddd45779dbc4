<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import type { SoldTwice } from '$lib/core/loose-end/sold-twice';
  import { timeWords } from '$lib/ui/words/date-words';
  import { useStall } from '../stall.svelte';
  import SeenCard from './SeenCard.svelte';

  interface Props {
    twice: SoldTwice;
    settlements: readonly Row<'settlements'>[];
  }
  const { twice, settlements }: Props = $props();
  const stall = useStall();
  const { locale, timeZone } = $derived(stall.business);
</script>

<SeenCard
  looseEnd={twice.looseEnd}
  label="A slip rung up twice"
  title={`The same slip was rung up ${String(twice.sales.length)} times`}
  {settlements}
>
  <p>Two devices had taken it up out of touch. Both sales stand; look whether it was paid twice.</p>
  <ul>
    {#each twice.sales as sale (sale.id)}
      <li>
        <a class="plain" href="/sales/{sale.id}">{sale.number}, {stall.money.text(sale.total)}</a>
        <span class="soft">{timeWords(sale.at, locale, timeZone)}, {stall.nameOf(sale.by)}</span>
      </li>
    {/each}
  </ul>
</SeenCard>

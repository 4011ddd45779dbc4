<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { shortDayWords, timeWords } from '$lib/ui/words/date-words';
  import { actWords } from '$lib/ui/words/people-words';
  import { useStall } from '../stall.svelte';

  interface Props {
    /** Newest first. */
    acts: readonly Row<'acts'>[];
  }
  const { acts }: Props = $props();
  const stall = useStall();
  const AT_FIRST = 50;
  let most = $state(AT_FIRST);
  const zone = $derived(stall.event?.timeZone ?? stall.business.timeZone);
  const amountOf = ({ what, amount }: Row<'acts'>): string => {
    if (amount === null) return '';
    return what === 'drawer.counted' ? stall.money.off(amount) : stall.money.text(amount);
  };
</script>

<ul class="grid">
  {#each acts.slice(0, most) as row (row.id)}
    <li class="border-base-300 grid gap-x-4 border-b py-2 last:border-0 sm:grid-cols-[1fr_auto]">
      <span class="min-w-0 break-words"
        ><b>{actWords[row.what]}</b>{row.about === '' ? '' : `: ${row.about}`}</span
      >
      <span class="figure sm:text-right">{amountOf(row)}</span>
      <span class="soft text-sm">
        {stall.nameOf(row.by)}{row.lentBy === null
          ? ''
          : `, with the right lent by ${stall.nameOf(row.lentBy)}`}
      </span>
      <span class="soft text-sm sm:text-right"
        >{shortDayWords(row.at.slice(0, 10), stall.business.locale)}, {timeWords(
          row.at,
          stall.business.locale,
          zone,
        )}</span
      >
    </li>
  {:else}
    <li class="soft">Nothing yet.</li>
  {/each}
</ul>
{#if acts.length > most}
  <button type="button" class="btn btn-quiet justify-self-start" onclick={() => (most += 200)}
    >Show more of the {acts.length}</button
  >
{/if}

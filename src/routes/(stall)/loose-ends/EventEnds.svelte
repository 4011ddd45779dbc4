<script lang="ts">
  /** What is loose of every event that is not settled, event by event, and letters that nobody took: as the server has it. */
  import type { Row } from '$lib/core/books/tables';
  import { allLooseEndsSchema, type AllLooseEnds } from '$lib/core/settle/event-loose-ends';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { lostLetterWords } from '$lib/ui/words/loose-end-words';
  import { endWords } from '$lib/ui/words/settle-words';
  import { settleNames } from '../events/[id]/settle/settling.svelte';
  import { useStall } from '../stall.svelte';
  import EndCard from './EndCard.svelte';
  import { useHands } from './hands.svelte';
  import SeenCard from './SeenCard.svelte';

  interface Props {
    /** How many there are of everybody's, as soon as that is known. */
    onFound: (count: number) => void;
    settlements: readonly Row<'settlements'>[];
  }
  const { onFound, settlements }: Props = $props();
  const stall = useStall();
  const hands = useHands();
  let asked = $state.raw<AllLooseEnds | null>(null);
  /** Why there is nothing newer of them. */
  let says = $state('');
  let zone = $state('');
  const names = settleNames(stall, () => (zone === '' ? stall.business.timeZone : zone));

  /** What this page says itself, from what the device knows, is not said twice. */
  const shown = $derived(
    (asked?.events ?? [])
      .map((event) => ({
        ...event,
        ends: event.ends.filter(
          (end) =>
            end.code !== 'order/uncollected' &&
            endWords(end, names).href !== '/loose-ends' &&
            hands?.isShown(end.looseEnd) !== false,
        ),
      }))
      .filter(({ ends }) => ends.length > 0),
  );

  async function ask(): Promise<void> {
    const found = await stall.transport.ask('/api/loose-ends', allLooseEndsSchema);
    says = wrongOf(found, 'No network.');
    if (found.came !== 'answer') return;
    asked = found.answer;
    if (hands !== undefined) hands.all = found.answer.hands;
    zone = found.answer.events[0]?.timeZone ?? '';
    const { events, letters } = found.answer;
    onFound(events.reduce((sum, { ends }) => sum + ends.length, letters.length));
  }
  $effect(() => {
    void stall.toSend;
    void stall.received;
    void stall.head;
    void stall.network;
    const timer = setTimeout(() => void ask(), 250);
    return () => clearTimeout(timer);
  });
</script>

{#if asked === null && says !== ''}
  <p class="sheet" role="status">What is left open of the events is not shown. {says}</p>
  <button type="button" class="btn btn-quiet justify-self-start" onclick={ask}
    >Ask for it again</button
  >
{/if}
{#each shown as { event, name, day, ends } (event)}
  <section
    class="grid grid-cols-[minmax(0,1fr)] gap-3"
    aria-labelledby="of-{event}"
    data-testid="event-ends"
  >
    <h2 id="of-{event}" class="flex flex-wrap items-baseline justify-between gap-2">
      <span>{name}, {shortDayWords(day, stall.business.locale)}</span>
      <a class="plain text-base font-normal" href="/events/{event}/settle">Settle it</a>
    </h2>
    {#each ends as end (end.looseEnd)}
      <EndCard {end} {names} />
    {/each}
  </section>
{/each}
{#each (asked?.letters ?? []).filter(({ looseEnd }) => hands?.isShown(looseEnd) !== false) as letter (letter.looseEnd)}
  {@const { title, story, href, link } = lostLetterWords(letter)}
  <SeenCard looseEnd={letter.looseEnd} label={title} {title} {settlements}>
    <p>
      It was asked for on {shortDayWords(letter.at.slice(0, 10), stall.business.locale)}. {story}
      <a class="plain" {href}>{link}</a>
    </p>
  </SeenCard>
{/each}
{#if asked !== null && asked.more > 0}
  <p class="sheet">
    And {asked.more} older {asked.more === 1 ? 'event' : 'events'} that are not settled; they follow as
    these are.
  </p>
{/if}

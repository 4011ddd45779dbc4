<script lang="ts">
  /** What is loose of every event that is not settled, event by event, as the server works it out. */
  import { z } from 'zod';
  import type { EventLooseEnds, Hand } from '$lib/core/settle/event-loose-ends';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { endWords } from '$lib/ui/words/settle-words';
  import { settleNames } from '../events/[id]/settle/settling.svelte';
  import { useStall } from '../stall.svelte';
  import EndCard from './EndCard.svelte';
  import { useHands } from './hands.svelte';

  interface Props {
    /** How many there are of everybody's, as soon as that is known. */
    onFound: (count: number) => void;
  }
  const { onFound }: Props = $props();
  const stall = useStall();
  const hands = useHands();
  const answer = z.object({
    events: z.array(z.custom<EventLooseEnds>()),
    more: z.number(),
    hands: z.array(z.custom<Hand>()),
  });
  let asked = $state.raw<z.infer<typeof answer> | null>(null);
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
    const found = await stall.transport.ask('/api/loose-ends', answer);
    if (found.came !== 'answer') return;
    asked = found.answer;
    if (hands !== undefined) hands.all = found.answer.hands;
    zone = found.answer.events[0]?.timeZone ?? '';
    onFound(found.answer.events.reduce((sum, { ends }) => sum + ends.length, 0));
  }
  $effect(() => {
    void stall.toSend;
    void stall.received;
    void stall.head;
    const timer = setTimeout(() => void ask(), 250);
    return () => clearTimeout(timer);
  });
</script>

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
{#if asked !== null && asked.more > 0}
  <p class="sheet">
    And {asked.more} older {asked.more === 1 ? 'event' : 'events'} that are not settled; they follow as
    these are.
  </p>
{/if}

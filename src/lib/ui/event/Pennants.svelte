<script lang="ts">
  import { spreadFrom, type Pennant } from '../../core/event/season';

  interface Props {
    pennants: readonly Pennant[];
    /** What stands under the name: what it brought, or nothing yet. */
    brought: (event: string) => string;
    /** The names of the months, short. */
    months: readonly string[];
    /** The month that is now, from 0, if the year is this one. */
    month: number | null;
  }
  const { pennants, brought, months, month }: Props = $props();

  /** The event whose crowd is spread: its pennant was touched, or gone to. */
  let middle = $state<string | null>(null);
  const spread = $derived.by(() => {
    const n = pennants.findIndex(({ event }) => event.id === middle);
    const places = pennants.map(({ at }) => at);
    return n < 0 ? new Map<number, number>() : spreadFrom(places, n);
  });
  /** A crowd that is spread stays so while one goes from one of it to another. */
  function goTo(n: number): void {
    if (!spread.has(n)) middle = pennants[n]?.event.id ?? null;
  }
  let isFirstTouch = false;
  /** A finger spreads the crowd first; what is meant can only be told then. */
  function touch({ pointerType }: PointerEvent, n: number): void {
    const wasSpread = spread.has(n);
    goTo(n);
    isFirstTouch = pointerType === 'touch' && !wasSpread && spread.size > 0;
  }
  /** The touch became a scroll: no click follows. */
  function scrolled(): void {
    isFirstTouch = false;
  }
  function open(event: MouseEvent): void {
    if (isFirstTouch) event.preventDefault();
    isFirstTouch = false;
  }

  /** The string hangs between four nails; how far down it is at a place, from 0 to 1. */
  const sag = (at: number): number => {
    const part = (at * 4) % 1;
    return 4 * part * (1 - part);
  };
</script>

<div
  class="season-year"
  aria-label="The year"
  role="group"
  onpointerleave={({ pointerType }) => {
    if (pointerType === 'mouse') middle = null;
  }}
  onfocusout={({ relatedTarget, currentTarget }) => {
    if (!(relatedTarget instanceof Node) || !currentTarget.contains(relatedTarget)) middle = null;
  }}
>
  <svg class="season-string" viewBox="0 0 400 20" preserveAspectRatio="none" aria-hidden="true">
    {#each [0, 100, 200, 300] as x (x)}
      <path d="M {x} 1 Q {x + 50} 37 {x + 100} 1" vector-effect="non-scaling-stroke" />
    {/each}
  </svg>
  {#each pennants as { event, at, is, isNamed }, n (event.id)}
    {@const where = spread.get(n) ?? at}
    <a
      class={[
        'season-pennant',
        is.replace(' ', '-'),
        !isNamed && 'crowded',
        spread.size > 0 && (spread.has(n) ? 'spread' : 'behind'),
      ]}
      href="/events/{event.id}"
      style:left="calc({where * 100}% * 0.94)"
      style:top="{4 + sag(where) * 32}px"
      style:--own={event.stripe}
      title={event.name}
      onpointerenter={({ pointerType }) => {
        if (pointerType === 'mouse') goTo(n);
      }}
      onpointerdown={(event) => touch(event, n)}
      onpointercancel={scrolled}
      onfocus={() => goTo(n)}
      onclick={open}
    >
      <span class="season-flag" aria-hidden="true"></span>
      <span class="season-said"
        >{event.short}<span class="figure block text-xs">{brought(event.id)}</span><span
          class="sr-only">{is}</span
        ></span
      >
    </a>
  {/each}
  <ol class="season-months" aria-hidden="true">
    {#each months as name, at (name)}
      <li class={[at === month && 'font-[700]']}>{name}</li>
    {/each}
  </ol>
</div>

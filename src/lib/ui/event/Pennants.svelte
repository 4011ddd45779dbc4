<script lang="ts">
  import type { Pennant } from '../../core/event/season';

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

  /** The string hangs between four nails; how far down it is at a place, from 0 to 1. */
  const sag = (at: number): number => {
    const part = (at * 4) % 1;
    return 4 * part * (1 - part);
  };
</script>

<div class="season-year" aria-label="The year" role="group">
  <svg class="season-string" viewBox="0 0 400 20" preserveAspectRatio="none" aria-hidden="true">
    {#each [0, 100, 200, 300] as x (x)}
      <path d="M {x} 1 Q {x + 50} 37 {x + 100} 1" vector-effect="non-scaling-stroke" />
    {/each}
  </svg>
  {#each pennants as { event, at, is, isNamed } (event.id)}
    <a
      class={['season-pennant', is.replace(' ', '-'), !isNamed && 'crowded']}
      href="/events/{event.id}"
      style:left="calc({at * 100}% * 0.94)"
      style:top="{4 + sag(at) * 32}px"
      style:--own={event.stripe}
      title={event.name}
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

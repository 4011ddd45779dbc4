<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { stageOf } from '$lib/core/event/stage';
  import { useStall } from './stall.svelte';

  interface Props {
    event: Row<'events'>;
  }
  const { event }: Props = $props();
  const stall = useStall();
  const stage = $derived(stageOf(event));
  const others = $derived(stall.openDrawers.filter(({ id }) => id !== stall.drawer?.id));
</script>

<section
  class="sheet border-accent flex flex-wrap items-center gap-4 border-l-8"
  aria-label="What comes next"
>
  {#if stage === 'counted' || stage === 'settled'}
    <div class="min-w-[min(15rem,100%)] flex-1">
      <h2>The drawer has been counted</h2>
      <p class="soft mt-1">
        What was taken, and what is left of each item, is on the event’s page.
      </p>
    </div>
    <a class="btn btn-quiet" href="/events/{event.id}">See the event</a>
    {#if stage === 'counted'}
      <a class="btn btn-main px-6" href="/events/{event.id}/settle">Settle it</a>
    {/if}
  {:else if stage !== 'trading'}
    <div class="min-w-[min(15rem,100%)] flex-1">
      <h2>Trading has not begun</h2>
      <p class="soft mt-1">Open a drawer when the stall is up; that is where the float goes.</p>
    </div>
    {#if stage === 'planned'}
      <a class="btn btn-quiet" href="/events/{event.id}">Pack for it</a>
    {/if}
    <a class="btn btn-main px-6" href="/drawer/open">Open the drawer</a>
  {:else if stall.drawer !== undefined}
    <div class="min-w-[min(15rem,100%)] flex-1">
      <h2>{stall.slip.isEmpty ? 'Ready to sell' : 'A slip is waiting at the counter'}</h2>
      <p class="soft mt-1">
        Cash goes to {stall.drawer.name}.
        {#if stall.isShellHere()}
          When the stall is down, count it.
        {:else}
          Stay connected a moment: the application is still coming onto this device.
        {/if}
      </p>
    </div>
    <a class="btn btn-quiet" href="/drawer/count">Count the drawer</a>
    <a class="btn btn-main px-6" href="/counter"
      >{stall.slip.isEmpty ? 'Go to the counter' : 'Continue'}</a
    >
  {:else if others[0] !== undefined}
    {@const [drawer] = others}
    <div class="min-w-[min(15rem,100%)] flex-1">
      <h2>{drawer.name} is open already</h2>
      <p class="soft mt-1">
        Opened by {stall.nameOf(drawer.by)}. Sell into the same one, or open one of your own.
      </p>
    </div>
    <a class="btn btn-quiet" href="/drawer/open">Open another</a>
    <button
      type="button"
      class="btn btn-main px-6"
      onclick={() => stall.useDrawer(event.id, drawer.id)}>Use {drawer.name}</button
    >
  {:else}
    <div class="min-w-[min(15rem,100%)] flex-1">
      <h2>Open the drawer</h2>
      <p class="soft mt-1">Count the float into the tin; then the counter is ready.</p>
    </div>
    <a class="btn btn-main px-6" href="/drawer/open">Open the drawer</a>
  {/if}
</section>

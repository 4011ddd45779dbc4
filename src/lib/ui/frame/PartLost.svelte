<script lang="ts">
  /** Instead of a page of which a part did not come over the network. */
  import type { Snippet } from 'svelte';
  import { PART_LOST } from '../words/fault-words';

  interface Props {
    /** Where else one can go. */
    children?: Snippet;
  }
  const { children }: Props = $props();
</script>

<main class="mx-auto grid max-w-xl gap-4 p-8">
  <h1>Waiting for the network</h1>
  <p role="status">{PART_LOST}</p>
  <button type="button" class="btn btn-main justify-self-start" onclick={() => location.reload()}
    >Load it again now</button
  >
  {@render children?.()}
</main>

<script lang="ts">
  import { page } from '$app/state';
  import PartLost from '$lib/ui/frame/PartLost.svelte';

  const isPartLost = $derived(page.error?.isPartLost === true);
  $effect(() => {
    if (isPartLost) dispatchEvent(new Event('part-lost'));
  });
</script>

{#snippet today()}
  <a class="btn btn-quiet justify-self-start" href="/">To today</a>
{/snippet}
{#if isPartLost}
  <PartLost>{@render today()}</PartLost>
{:else}
  <main class="mx-auto grid max-w-xl gap-4 p-8">
    <h1>{page.status === 404 ? 'There is nothing here' : 'This did not work'}</h1>
    <p>{page.error?.message}</p>
    {@render today()}
  </main>
{/if}

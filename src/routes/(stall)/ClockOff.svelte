<script lang="ts">
  import { live } from '$lib/device/live.svelte';
  import { clockWords } from '$lib/ui/words/clock-words';
  import { useStall } from './stall.svelte';

  const stall = useStall();
  const standing = live(() => () => stall.db.read('standing'), undefined);
  const says = $derived(clockWords(standing.value?.ahead ?? 0));
</script>

{#if says !== null}
  <p class="sheet border-error my-2 border-l-8" role="alert" data-testid="clock-off">
    {says}
  </p>
{/if}

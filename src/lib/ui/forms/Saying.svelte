<script lang="ts">
  import { useFaults } from './faults.svelte';

  interface Props {
    /** What the form calls this part of it: what is wrong with it is said here. */
    at: string;
  }
  const { at }: Props = $props();
  const faults = useFaults();
  $effect(() => faults.besides(at));
</script>

{#if faults.at(at) !== ''}<p class="text-error text-sm" role="alert">{faults.at(at)}</p>{/if}

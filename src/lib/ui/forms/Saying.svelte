<script lang="ts">
  import { useFaults } from './faults.svelte';

  interface Props {
    /** What the form calls this part of it: what is wrong with it is said here. */
    at: string;
  }
  const { at }: Props = $props();
  const faults = useFaults();
  $effect(() => faults.besides(at));
  let said = $state<HTMLElement>();
  // What was pressed may be far from it.
  $effect(() => {
    if (faults.at(at) !== '') said?.scrollIntoView({ block: 'center' });
  });
</script>

{#if faults.at(at) !== ''}<p bind:this={said} class="text-error text-sm" role="alert">
    {faults.at(at)}
  </p>{/if}

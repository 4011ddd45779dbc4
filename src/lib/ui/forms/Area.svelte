<!-- Text of several lines; else as a field. -->
<script lang="ts">
  import type { HTMLTextareaAttributes } from 'svelte/elements';
  import { useFaults } from './faults.svelte';

  interface Props extends HTMLTextareaAttributes {
    label: string;
    help?: string;
    /** What its form calls it: what is wrong with it is said here, and it is gone to. */
    at: string;
    value: string;
  }
  let { label, help = '', at, value = $bindable(), rows = 3, ...rest }: Props = $props();
  const faults = useFaults();
  const says = $derived(faults.at(at));
  let area = $state<HTMLTextAreaElement>();
  $effect(() => faults.besides(at));
  $effect(() => {
    if (faults.at(at) !== '') area?.focus();
  });
</script>

<div class="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-1">
  <label class="grid grid-cols-[minmax(0,1fr)] gap-1 font-[560]">
    {label}
    <textarea
      {...rest}
      {rows}
      bind:this={area}
      class={['textarea w-full', says !== '' && '!border-error']}
      aria-invalid={says !== ''}
      bind:value></textarea>
    {#if help !== ''}<span class="soft text-sm font-normal">{help}</span>{/if}
  </label>
  {#if says !== ''}<p class="text-error text-sm" role="alert">{says}</p>{/if}
</div>

<script lang="ts">
  import type { HTMLInputAttributes } from 'svelte/elements';
  import { useFaults } from './faults.svelte';

  interface Props extends HTMLInputAttributes {
    label: string;
    help?: string;
    /** What its form calls it: what is wrong with it is said here, and it is gone to. */
    at?: string;
    /** What is wrong with what stands here, if that is said right below it. */
    says?: string;
    isWrong?: boolean;
    value: string;
  }
  let {
    label,
    help = '',
    at = '',
    says: said = '',
    isWrong: isMarked = false,
    value = $bindable(),
    ...rest
  }: Props = $props();
  const faults = useFaults();
  const says = $derived(said !== '' || at === '' ? said : faults.at(at));
  const isWrong = $derived(isMarked || says !== '');
  let input = $state<HTMLInputElement>();
  $effect(() => (at === '' ? undefined : faults.besides(at)));
  $effect(() => {
    if (at !== '' && faults.at(at) !== '') input?.focus();
  });
</script>

<div class="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-1">
  <label class="grid grid-cols-[minmax(0,1fr)] gap-1 font-[560]">
    {label}
    <input
      {...rest}
      bind:this={input}
      class={['input w-full', isWrong && '!border-error']}
      aria-invalid={isWrong}
      bind:value
    />
    {#if help !== ''}<span class="soft text-sm font-normal">{help}</span>{/if}
  </label>
  {#if says !== ''}<p class="text-error text-sm" role="alert">{says}</p>{/if}
</div>

<script lang="ts">
  import type { HTMLInputAttributes } from 'svelte/elements';

  interface Props extends HTMLInputAttributes {
    label: string;
    help?: string;
    /** What is wrong with what stands here, if that is said right below it. */
    says?: string;
    isWrong?: boolean;
    value: string;
  }
  let {
    label,
    help = '',
    says = '',
    isWrong = says !== '',
    value = $bindable(),
    ...rest
  }: Props = $props();
</script>

<div class="grid content-start gap-1">
  <label class="grid gap-1 font-[560]">
    {label}
    <input
      {...rest}
      class={['input w-full', isWrong && '!border-error']}
      aria-invalid={isWrong}
      bind:value
    />
    {#if help !== ''}<span class="soft text-sm font-normal">{help}</span>{/if}
  </label>
  {#if says !== ''}<p class="text-error text-sm" role="alert">{says}</p>{/if}
</div>

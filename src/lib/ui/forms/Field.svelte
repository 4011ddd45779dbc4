<script lang="ts">
  import type { HTMLInputAttributes } from 'svelte/elements';

  interface Props extends HTMLInputAttributes {
    label: string;
    help?: string;
    isWrong?: boolean;
    value: string;
  }
  let { label, help = '', isWrong = false, value = $bindable(), ...rest }: Props = $props();
</script>

<label class="grid content-start gap-1 font-[560]">
  {label}
  <input
    {...rest}
    class={['input w-full', isWrong && '!border-error']}
    aria-invalid={isWrong}
    bind:value
  />
  {#if help !== ''}<span class="soft text-sm font-normal">{help}</span>{/if}
</label>

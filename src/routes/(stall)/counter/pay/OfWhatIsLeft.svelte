<!-- How much of what is left is taken so; nothing typed is all that can be. -->
<script lang="ts">
  import type { Paying } from './paying.svelte';

  interface Props {
    typed: string;
    /** What is taken if nothing is typed. */
    placeholder: string;
    paying: Paying;
  }
  let { typed = $bindable(), placeholder, paying }: Props = $props();
</script>

<label class="grid min-w-28 flex-1 gap-1 font-[560]">
  Of what is left
  <input
    bind:value={typed}
    class={['input figure w-full text-xl', paying.wrong !== null && '!border-error']}
    inputmode="decimal"
    autocomplete="off"
    {placeholder}
    aria-invalid={paying.wrong !== null}
    oninput={() => (paying.wrong = null)}
  />
</label>

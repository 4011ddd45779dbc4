<script lang="ts">
  /** Where what comes back is put: to stock, or it is gone for good. */
  import { GONE } from '$lib/core/daybook/kinds/stock-moved';
  import type { ChosenBack } from '$lib/core/sale/make-return';
  import { reasonWords } from '$lib/ui/words/stock-words';

  interface Props {
    label: string;
    value: ChosenBack['to'];
    /** The label is for those who do not see where it stands. */
    isPlain?: boolean;
  }
  let { label, value = $bindable(), isPlain = false }: Props = $props();
</script>

<label class="grid gap-1 font-[560]">
  <span class={isPlain ? 'sr-only' : ''}>{label}</span>
  <select class="select min-h-12 w-full" bind:value>
    <option value="stock">back to stock</option>
    {#each GONE as why (why)}<option value={why}>was {reasonWords(why)}</option>{/each}
  </select>
</label>

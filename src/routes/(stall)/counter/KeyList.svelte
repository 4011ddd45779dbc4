<script lang="ts">
  import { COUNTER_KEYS } from '$lib/ui/counter/keys';

  interface Props {
    dialog: HTMLDialogElement | undefined;
  }
  let { dialog = $bindable() }: Props = $props();
</script>

<dialog
  bind:this={dialog}
  class="sheet m-auto w-[min(28rem,92vw)] backdrop:bg-black/40"
  aria-labelledby="keys"
>
  <h2 id="keys" class="mb-3">Keys</h2>
  <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
    {#each Object.entries(COUNTER_KEYS) as [key, does] (key)}
      <dt><kbd class="key">{key}</kbd></dt>
      <dd>{does}</dd>
    {/each}
  </dl>
  <form method="dialog" class="mt-4"><button class="btn btn-quiet w-full">Close</button></form>
</dialog>

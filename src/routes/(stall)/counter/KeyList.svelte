<script lang="ts">
  interface Props {
    dialog: HTMLDialogElement | undefined;
  }
  let { dialog = $bindable() }: Props = $props();

  const keys = [
    ['/', 'to the entry line'],
    ['Enter', 'does what the entry line shows'],
    ['↓ ↑', 'another of the goods that fit'],
    ['F2', 'take payment'],
    ['F4', 'set the slip aside'],
    ['F8', 'what is waiting'],
    ['F9', 'exact cash'],
    ['Shift + F9', 'the last receipt again'],
    ['Ctrl + Enter', 'finish: take what is typed'],
    ['Esc', 'back, or clear the entry line'],
    ['?', 'this list'],
  ] as const;
</script>

<dialog
  bind:this={dialog}
  class="sheet m-auto w-[min(28rem,92vw)] backdrop:bg-black/40"
  aria-labelledby="keys"
>
  <h2 id="keys" class="mb-3">Keys</h2>
  <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
    {#each keys as [key, does] (key)}
      <dt><kbd class="key">{key}</kbd></dt>
      <dd>{does}</dd>
    {/each}
  </dl>
  <form method="dialog" class="mt-4"><button class="btn btn-quiet w-full">Close</button></form>
</dialog>

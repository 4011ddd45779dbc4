<script lang="ts">
  import { live } from '$lib/device/live.svelte';
  import { scaledDown } from '$lib/ui/files/scaled-down';
  import { useStall } from '../../stall.svelte';

  interface Props {
    /** Null for something new. */
    item: string | null;
    /** What was chosen now: a data address, null to take it away, undefined to leave it. */
    picture: string | null | undefined;
  }
  let { item, picture = $bindable() }: Props = $props();
  const { db } = useStall();
  const kept = live(() => {
    const id = item;
    return async () => (id === null ? undefined : await db.books.photos.get(id));
  }, undefined);
  const shown = $derived(picture === undefined ? (kept.value?.picture?.data ?? null) : picture);
  let wrong = $state('');

  async function take(files: FileList | null): Promise<void> {
    const [file] = files ?? [];
    if (file === undefined) return;
    const scaled = await scaledDown(file);
    wrong = scaled === null ? 'This is not a picture that the browser can read.' : '';
    if (scaled !== null) picture = scaled;
  }
</script>

<div class="grid gap-1">
  <span class="font-[560]">Picture</span>
  <div class="flex flex-wrap items-center gap-3">
    {#if shown !== null}
      <img src={shown} alt="As it is shown on the tag" class="size-16 rounded-lg object-cover" />
      <button type="button" class="btn btn-quiet" onclick={() => (picture = null)}>Remove</button>
    {/if}
    <input
      type="file"
      accept="image/*"
      class="file-input min-h-12 max-w-56"
      aria-label="Choose a picture"
      onchange={(event) => take(event.currentTarget.files)}
    />
  </div>
  {#if wrong !== ''}<p class="text-error text-sm" role="alert">{wrong}</p>{/if}
</div>

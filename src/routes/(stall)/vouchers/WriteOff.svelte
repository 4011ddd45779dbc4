<!-- What is left on vouchers that ran out is owed no more: asked once, since it stays so. -->
<script lang="ts">
  import RightButton from '../RightButton.svelte';

  interface Props {
    /** How much, and of what: “£13.50”. */
    what: string;
    /** What becomes of it. */
    says?: string;
    onGo: (lentBy?: string) => Promise<void>;
  }
  const { what, says = 'is owed no more, and cannot be spent', onGo }: Props = $props();
  let isAsking = $state(false);
</script>

{#if isAsking}
  <div
    class="bg-base-200 flex flex-wrap items-center gap-2 rounded-lg p-3"
    role="group"
    aria-label="Write it off?"
  >
    <p class="min-w-48 flex-1">{what} {says}. This stays so.</p>
    <RightButton right="voucher.set" look="btn-quiet" label="Write {what} off" {onGo} />
    <button type="button" class="btn btn-quiet" onclick={() => (isAsking = false)}>Cancel</button>
  </div>
{:else}
  <button type="button" class="btn btn-quiet" onclick={() => (isAsking = true)}
    >It ran out: write {what} off …</button
  >
{/if}

<script lang="ts">
  /** What should be in a drawer is not shown to everybody: somebody who may see it lends the right, unless nobody may. */
  import LendRight from '../LendRight.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    onLent: (lender: string) => void;
  }
  const { onLent }: Props = $props();
  const stall = useStall();
  let isLending = $state(false);
</script>

{#if stall.business.isBlind}
  <p class="soft">
    Drawers are counted blind here: what should be in them is shown once they have been counted.
  </p>
{:else if isLending}
  <LendRight right="cash.expected" {onLent} onBack={() => (isLending = false)} />
{:else}
  <div class="flex flex-wrap items-center justify-between gap-3">
    <p class="soft">What should be in it is shown when the drawer has been closed.</p>
    <button type="button" class="btn btn-quiet" onclick={() => (isLending = true)}
      >Show what should be in it</button
    >
  </div>
{/if}

<script lang="ts">
  import { goto } from '$app/navigation';
  import { lockDevice } from '../counter/keep-slip';
  import { useStall } from '../stall.svelte';
  import WhoIsThere from '../WhoIsThere.svelte';

  const stall = useStall();
  let isLocking = $state(false);
  let isAsking = $state(false);

  /** Until it is locked nobody is asked who is there: their answer would be asked for twice. */
  async function lock(): Promise<void> {
    isLocking = true;
    try {
      await lockDevice(stall);
    } finally {
      isLocking = false;
    }
  }
</script>

{#if !isLocking}<WhoIsThere onSignedIn={() => goto('/')} bind:isAsking />{/if}
{#if stall.seller?.pin != null && !isAsking}
  <p class="mx-auto w-full max-w-xl px-5">
    <button type="button" class="btn btn-quiet w-full" disabled={isLocking} onclick={lock}
      >Lock this device</button
    >
  </p>
{/if}

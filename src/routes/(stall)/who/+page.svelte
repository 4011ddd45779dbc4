<script lang="ts">
  import { goto } from '$app/navigation';
  import { lockDevice } from '../counter/keep-slip';
  import { useStall } from '../stall.svelte';
  import WhoIsThere from '../WhoIsThere.svelte';

  const stall = useStall();
</script>

<WhoIsThere onSignedIn={() => goto('/')} />
{#if stall.seller?.pin != null}
  <p class="mx-auto w-full max-w-xl px-5">
    <button type="button" class="btn btn-quiet w-full" onclick={() => lockDevice(stall)}
      >Lock this device</button
    >
  </p>
{/if}

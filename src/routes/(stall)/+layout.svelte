<script lang="ts">
  import { untrack } from 'svelte';
  import type { Identity } from '$lib/device/database';
  import { openedDatabase } from '$lib/device/opened-database';
  import StallFrame from './StallFrame.svelte';

  const { children } = $props();
  const db = openedDatabase();
  let identity = $state.raw<Identity | null | undefined>(undefined);
  let fault = $state<string | null>(null);

  untrack(() => {
    db.read('identity').then(
      (found) => (identity = found ?? null),
      (error: unknown) => (fault = error instanceof Error ? error.message : String(error)),
    );
  });
</script>

{#if fault !== null}
  <main class="mx-auto max-w-xl p-8">
    <h1>This browser does not keep data for us</h1>
    <p class="mt-4">
      Sales must be safe on the device before anything else. Turn private browsing off, or free some
      room, and open this page again. What the browser says: {fault}
    </p>
  </main>
{:else if identity === null}
  <main class="mx-auto max-w-xl p-8">
    <h1>This browser is not a till yet</h1>
    <p class="mt-4">
      Open the address that the start command printed, or ask somebody at an enrolled device for a
      code: <i>Set-up → Add a device</i>.
    </p>
    <a class="btn btn-main mt-6 px-6" href="/enrol">Enter a code</a>
  </main>
{:else if identity !== undefined}
  <StallFrame {db} {identity}>{@render children()}</StallFrame>
{/if}

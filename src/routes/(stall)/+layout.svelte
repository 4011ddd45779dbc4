<script lang="ts">
  import { untrack } from 'svelte';
  import type { Identity } from '$lib/device/database';
  import { takeBackIfThrownAway } from '$lib/device/mirror/mirror';
  import { openedDatabase } from '$lib/device/opened-database';
  import Forgotten from './Forgotten.svelte';
  import ShutOut from './ShutOut.svelte';
  import StallFrame from './StallFrame.svelte';
  import { faultWords } from '$lib/ui/words/fault-words';

  const { children } = $props();
  const db = openedDatabase();
  let identity = $state.raw<Identity | null | undefined>(undefined);
  let isShutOut = $state(false);
  let isForgotten = $state(false);
  let fault = $state<string | null>(null);

  untrack(() => {
    whoIsThis().catch((error: unknown) => (fault = faultWords(error)));
  });

  async function whoIsThis(): Promise<void> {
    const read = async () =>
      await Promise.all([db.read('identity'), db.read('shutOut'), db.read('forgotten')]);
    let [found, out, forgotten] = await read();
    // Never enrolled, or the browser threw the database away.
    if (await takeBackIfThrownAway(db)) [found, out, forgotten] = await read();
    isShutOut = out === true;
    isForgotten = forgotten === true;
    identity = found ?? null;
  }
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
      code: <i>Set-up → Devices and account</i>.
    </p>
    <div class="mt-6 flex flex-wrap gap-3">
      <a class="btn btn-main px-6" href="/enrol">Enter a code</a>
      <a class="btn btn-quiet" href="/sign-up">Begin with your own stall</a>
    </div>
  </main>
{:else if identity !== undefined && isShutOut}
  <ShutOut {db} {identity} />
{:else if identity !== undefined && isForgotten}
  <Forgotten {db} {identity} onBack={() => (isForgotten = false)} />
{:else if identity !== undefined}
  <StallFrame
    {db}
    {identity}
    onShutOut={() => (isShutOut = true)}
    onForgotten={() => (isForgotten = true)}>{@render children()}</StallFrame
  >
{/if}

<script lang="ts">
  import { untrack } from 'svelte';
  import type { Forgotten as ForgottenHow, Identity } from '$lib/device/database';
  import { isPartLost } from '$lib/core/daybook/part-lost';
  import { takeBackIfThrownAway } from '$lib/device/mirror/mirror';
  import { makeNewSums } from '$lib/device/new-sums';
  import { openedDatabase } from '$lib/device/opened-database';
  import Forgotten from './Forgotten.svelte';
  import ShutOut from './ShutOut.svelte';
  import StallFrame from './StallFrame.svelte';
  import PartLost from '$lib/ui/frame/PartLost.svelte';
  import { faultWords } from '$lib/ui/words/fault-words';

  const { children } = $props();
  const db = openedDatabase();
  let identity = $state.raw<Identity | null | undefined>(undefined);
  let isShutOut = $state(false);
  let forgot = $state<ForgottenHow | null>(null);
  let fault = $state.raw<unknown>(null);
  /** How much of new sums has been worked out, percent. */
  let making = $state<number | null>(null);

  const AGAIN = 3000;
  const look = (): void => {
    whoIsThis().then(
      () => (fault = null),
      (error: unknown) => {
        fault = error;
        // There may be room in a moment, or a network.
        setTimeout(look, AGAIN);
      },
    );
  };
  untrack(look);
  // The browser closed it, and may have thrown it away: with no network this page is all there is to see by.
  db.on('close', look);

  async function whoIsThis(): Promise<void> {
    const read = async () =>
      await Promise.all([db.read('identity'), db.read('shutOut'), db.read('forgotten')]);
    if (!db.isOpen()) await db.open();
    let [found, out, forgotten] = await read();
    // Never enrolled, or the browser threw the database away.
    if (await takeBackIfThrownAway(db)) [found, out, forgotten] = await read();
    await makeNewSums(
      db,
      (done, all) => (making = all === 0 ? 100 : Math.round((100 * done) / all)),
    );
    isShutOut = out === true;
    forgot = forgotten ?? null;
    identity = found ?? null;
  }
</script>

{#if isPartLost(fault)}
  <PartLost />
{:else if fault !== null}
  <main class="mx-auto max-w-xl p-8">
    <h1>This browser does not keep data for us</h1>
    <p class="mt-4">
      Sales must be safe on the device before anything else. Turn private browsing off, or free some
      room, and open this page again. What the browser says: {faultWords(fault)}
    </p>
  </main>
{:else if identity === undefined && making !== null}
  <main class="mx-auto grid max-w-xl gap-4 p-8">
    <h1>Working out figures that are new in this version</h1>
    <progress class="progress w-full" value={making} max="100">{making} %</progress>
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
{:else if identity !== undefined && forgot !== null}
  <Forgotten {db} {identity} how={forgot} onBack={() => (forgot = null)} />
{:else if identity !== undefined}
  <StallFrame
    {db}
    {identity}
    onShutOut={() => (isShutOut = true)}
    onForgotten={() => (forgot = 'by itself')}>{@render children()}</StallFrame
  >
{/if}

<script lang="ts">
  import type { DeviceDatabase, Identity } from '$lib/device/database';
  import { DeviceMirror } from '$lib/device/mirror/mirror';
  import { handOver, startAnew, wipe } from '$lib/device/shut-out';
  import { Transport } from '$lib/device/sync/transport';

  interface Props {
    db: DeviceDatabase;
    identity: Identity;
  }
  const { db, identity }: Props = $props();
  const LOOK_EVERY = 10_000;
  const mirror = new DeviceMirror();
  /** Entries that are still only here; null until that is known. */
  let left = $state<number | null>(null);

  $effect(() => {
    const transport = new Transport(identity.token);
    const go = async (): Promise<void> => {
      await wipe(db);
      // What was typed and not kept goes too.
      sessionStorage.clear();
      left = await handOver(db, transport);
      // Nothing of it stays beside the database either.
      if (left === 0) await mirror.clear().catch(() => undefined);
    };
    void go();
    const timer = setInterval(() => {
      if (left !== 0) void go();
    }, LOOK_EVERY);
    return () => clearInterval(timer);
  });

  async function again(): Promise<void> {
    await startAnew(db);
    await mirror.clear().catch(() => undefined);
    location.assign('/enrol');
  }
</script>

<main class="mx-auto grid max-w-xl gap-4 p-8">
  <h1>This device has been shut out</h1>
  <p>
    An owner has decided that D{identity.number} may no longer sell. What it had sent is safe; what it
    knew of the business has been wiped from it.
  </p>
  {#if left === null}
    <p class="sheet">Looking for what had not been sent …</p>
  {:else if left > 0}
    <p class="sheet border-accent border-l-8" data-testid="left">
      {left}
      {left === 1 ? 'entry has' : 'entries have'} not been sent and {left === 1 ? 'is' : 'are'} kept here.
      They are handed over as soon as there is a network; an owner then looks at them.
    </p>
  {:else}
    <p class="sheet" data-testid="left">
      Nothing is left on it. What had not been sent has been handed over; an owner decides about it
      under <i>Devices and account</i>.
    </p>
    <button type="button" class="btn btn-quiet justify-self-start" onclick={again}
      >Enrol it anew with a code</button
    >
  {/if}
</main>

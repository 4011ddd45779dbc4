<script lang="ts">
  import type { DeviceDatabase, Forgotten, Identity } from '$lib/device/database';
  import { comeBack } from '$lib/device/forget';
  import { Transport } from '$lib/device/sync/transport';

  interface Props {
    db: DeviceDatabase;
    identity: Identity;
    how: Forgotten;
    onBack: () => void;
  }
  const { db, identity, how, onBack }: Props = $props();
  const LOOK_EVERY = 10_000;
  let left = $state<number | null>(null);
  let isBusy = false;

  $effect(() => {
    const transport = new Transport(identity.token);
    const go = async (): Promise<void> => {
      if (isBusy) return;
      isBusy = true;
      const came = await comeBack(db, transport).catch(() => ({ isBack: false, left: null }));
      isBusy = false;
      left = came.left;
      if (came.isBack) onBack();
    };
    void go();
    const timer = setInterval(() => void go(), LOOK_EVERY);
    return () => clearInterval(timer);
  });
</script>

<main class="mx-auto grid max-w-xl gap-4 p-8">
  {#if how === 'by the browser'}
    <h1>The browser ran out of room and threw this till’s data away</h1>
    <p>
      What D{identity.number} had not sent was kept beside it and is here. Free some room on this device,
      keep this page open, and find a network.
    </p>
  {:else}
    <h1>This device has forgotten what it knew</h1>
    <p>
      It had no network for longer than the vendor lets a device be without. Nothing that was sold
      is lost: what D{identity.number} had not sent is kept on it.
    </p>
  {/if}
  <p class="sheet" data-testid="forgotten">
    {#if left !== null && left > 0}{left}
      {left === 1 ? 'entry is' : 'entries are'} still to be sent.{/if}
    As soon as there is a network it sends what it has, and begins again where the others are.
  </p>
</main>

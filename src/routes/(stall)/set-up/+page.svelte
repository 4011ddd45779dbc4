<script lang="ts">
  import { version } from '$app/environment';
  import { live } from '$lib/device/live.svelte';
  import { askToKeep, isLow, storageReport, type StorageReport } from '$lib/device/storage';
  import { HANDS, looks, THEMES } from '$lib/ui/frame/looks.svelte';
  import { syncWords } from '$lib/ui/words/sync-words';
  import { useStall } from '../stall.svelte';
  import LockAfter from './LockAfter.svelte';

  const stall = useStall();
  let storage = $state.raw<StorageReport | null>(null);
  $effect(() => {
    void storageReport().then((report) => (storage = report));
  });
  const kept = live(() => () => stall.db.kept.orderBy('id').toArray(), []);
  function room(bytes: number | null): string {
    if (bytes === null) return 'unknown';
    const megabytes = bytes / 1_000_000;
    return megabytes < 1000 ? `${megabytes.toFixed(1)} MB` : `${(megabytes / 1000).toFixed(1)} GB`;
  }
</script>

<div class="page gap-5 md:grid-cols-2">
  <h1 class="md:col-span-2">Set-up</h1>

  <section class="sheet grid content-start gap-3" aria-labelledby="looks">
    <h2 id="looks">Looks</h2>
    <div class="flex flex-wrap gap-2" role="group" aria-label="Theme">
      {#each THEMES as { id, name } (id)}
        <button
          type="button"
          class={['btn btn-quiet', looks.theme === id && '!border-primary !border-3']}
          aria-pressed={looks.theme === id}
          onclick={() => (looks.theme = id)}>{name}</button
        >
      {/each}
    </div>
    <div class="flex flex-wrap gap-2" role="group" aria-label="Hand">
      {#each HANDS as { id, name } (id)}
        <button
          type="button"
          class={['btn btn-quiet', looks.hand === id && '!border-primary !border-3']}
          aria-pressed={looks.hand === id}
          onclick={() => (looks.hand = id)}>{name}</button
        >
      {/each}
    </div>
  </section>

  <section
    class="sheet grid grid-cols-[minmax(0,1fr)] content-start gap-2"
    aria-labelledby="device"
  >
    <h2 id="device">This device</h2>
    <dl class="grid gap-x-5 sm:grid-cols-[auto_minmax(0,1fr)] sm:gap-y-1.5 [&>dd]:max-sm:mb-2">
      <dt class="soft">Number</dt>
      <dd>
        D{stall.identity.number}; its sales are D{stall.identity.number}-1, D{stall.identity
          .number}-2 …
      </dd>
      <dt class="soft">Business</dt>
      <dd>{stall.business.name}</dd>
      <dt class="soft">Network</dt>
      <dd>{syncWords(stall.standing, false)}</dd>
      <dt class="soft">Entries written</dt>
      <dd class="figure">{stall.head}, of which {stall.toSend} still to send</dd>
      <dt class="soft">Room</dt>
      <dd>
        {#if storage === null}…{:else}
          {room(storage.used)} of {room(storage.room)} used
          {#if isLow(storage)}<b class="text-error"
              >· room is running low; free some before the next event</b
            >{/if}
        {/if}
      </dd>
      <dt class="soft">Kept by the browser</dt>
      <dd>
        {#if storage?.isKept}yes, also when it is short of room
        {:else}
          not promised yet
          <button
            type="button"
            class="btn btn-quiet ml-2"
            onclick={async () => {
              await askToKeep();
              storage = await storageReport();
            }}>Ask for it</button
          >
        {/if}
      </dd>
      <dt class="soft">Version</dt>
      <dd class="code">{version}</dd>
    </dl>
    {#if stall.sync.refusal !== null || stall.sync.pauses.size > 0}
      <p class="text-error" role="alert">
        {stall.sync.refusal?.message ?? syncWords(stall.standing, false)}
      </p>
      <button
        type="button"
        class="btn btn-quiet justify-self-start"
        onclick={() => stall.tryAgain()}>Try again</button
      >
    {/if}
  </section>

  <section class="sheet grid content-start gap-3" aria-labelledby="people">
    <h2 id="people">People</h2>
    <p class="soft">
      {stall.staff.length === 0
        ? 'Nobody is set up yet.'
        : stall.staff.map(({ name }) => name).join(', ')}
    </p>
    <div class="flex flex-wrap gap-2">
      <a class="btn btn-quiet" href="/people">Who may do what</a>
      <a class="btn btn-quiet" href="/acts">What was changed, by whom</a>
    </div>
    <LockAfter />
  </section>

  <section class="sheet grid content-start gap-3" aria-labelledby="add">
    <h2 id="add">Devices and account</h2>
    <p class="soft">
      Add a device, shut one out, see where an owner is signed in. For owners, with the network.
    </p>
    <a class="btn btn-quiet justify-self-start" href="/account">Devices and account</a>
  </section>

  <section class="sheet grid content-start gap-3" aria-labelledby="kept">
    <h2 id="kept">Kept, not applied</h2>
    {#each kept.value as row (row.id)}
      <p>
        <b class="code">{row.id.slice(0, 8)}</b>
        {row.where === 'server' ? 'on the server' : 'on this device'}: {row.message}
      </p>
    {:else}
      <p class="soft">Nothing. What a version cannot read is kept here until a newer one can.</p>
    {/each}
  </section>
</div>

<script lang="ts">
  import { version } from '$app/environment';
  import { askToKeep, isLow, storageReport, type StorageReport } from '$lib/device/storage';
  import { HANDS, looks, THEMES, TURNS } from '$lib/ui/frame/looks.svelte';
  import { syncWords } from '$lib/ui/words/sync-words';
  import { useStall } from '../stall.svelte';
  import CashRules from './CashRules.svelte';
  import LockAfter from './LockAfter.svelte';
  import PrinterChoice from './PrinterChoice.svelte';

  const stall = useStall();
  let storage = $state.raw<StorageReport | null>(null);
  $effect(() => {
    void storageReport().then((report) => (storage = report));
  });
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
    <label class="grid gap-1 font-[560]">
      The page that is shown to customers
      <select
        class="select min-h-12 w-full"
        bind:value={() => looks.turn, (chosen) => (looks.turn = chosen)}
      >
        {#each TURNS as { id, name } (id)}<option value={id}>{name}</option>{/each}
      </select>
      <span class="soft text-sm font-normal"
        >Usually it is turned round on a phone, which is held out across the counter.</span
      >
    </label>
  </section>

  <section
    class="sheet grid grid-cols-[minmax(0,1fr)] content-start gap-2"
    aria-labelledby="device"
  >
    <h2 id="device">This device</h2>
    <dl class="grid gap-x-5 sm:grid-cols-[auto_minmax(0,1fr)] sm:gap-y-1.5 [&>dd]:max-sm:mb-2">
      <dt class="soft">Name</dt>
      <dd>
        <a class="plain" href="/devices/{stall.identity.device}"
          >{stall.given?.name ?? 'not named'}</a
        >
      </dd>
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

  <PrinterChoice />

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

  <section class="sheet grid content-start gap-3" aria-labelledby="business">
    <h2 id="business">Goods and business</h2>
    <p class="soft">
      What is sold, how it is laid out, what taxes it carries, how people can pay, how the business
      prices and rounds.
    </p>
    <div class="flex flex-wrap gap-2">
      <a class="btn btn-quiet" href="/items">Goods</a>
      <a class="btn btn-quiet" href="/categories">Categories</a>
      <a class="btn btn-quiet" href="/tables">Tables</a>
      <a class="btn btn-quiet" href="/ways">Ways to pay</a>
      <a class="btn btn-quiet" href="/taxes">Taxes and makers</a>
      <a class="btn btn-quiet" href="/business">The business</a>
    </div>
  </section>

  {#key stall.business.cashStamp}<CashRules />{/key}

  <section class="sheet grid content-start gap-3" aria-labelledby="customers">
    <h2 id="customers">Customers, vouchers, points</h2>
    <p class="soft">
      Who has a discount, owes something or has credit; what they agreed to; forgetting them.
      Vouchers, and what is left on each. What customers get for coming back.
    </p>
    <div class="flex flex-wrap gap-2">
      <a class="btn btn-quiet" href="/customers">Customers</a>
      <a class="btn btn-quiet" href="/vouchers">Vouchers</a>
      <a class="btn btn-quiet" href="/points">Points and rewards</a>
      <a class="btn btn-quiet" href="/orders">Quotes and orders</a>
      <a class="btn btn-quiet" href="/invoices">Invoices</a>
    </div>
  </section>

  <section class="sheet grid content-start gap-3" aria-labelledby="add">
    <h2 id="add">Devices and account</h2>
    <p class="soft">
      Name a device, give it an event and a drawer; for owners, with the network: add one, shut one
      out, see where an owner is signed in.
    </p>
    <div class="flex flex-wrap gap-2">
      <a class="btn btn-quiet" href="/devices">Devices</a>
      <a class="btn btn-quiet" href="/account">Account</a>
    </div>
  </section>

  <section class="sheet grid content-start gap-3" aria-labelledby="loose">
    <h2 id="loose">Loose ends</h2>
    <p class="soft">
      {stall.kept === 0
        ? 'This device knows of none. What was not allowed or not understood is kept there.'
        : `${String(stall.kept)} ${stall.kept === 1 ? 'entry' : 'entries'} of this device must be looked at.`}
    </p>
    <a class="btn btn-quiet justify-self-start" href="/loose-ends">Loose ends</a>
  </section>
</div>

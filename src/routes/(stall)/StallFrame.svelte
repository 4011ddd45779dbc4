<script lang="ts">
  import type { Snippet } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { toast } from 'svelte-sonner';
  import type { DeviceDatabase, Identity } from '$lib/device/database';
  import { isPartLost } from '$lib/core/daybook/part-lost';
  import { receiptCodeIn } from '$lib/core/receipt/receipt-code';
  import { doCardErrands } from '$lib/device/cards/card-errands';
  import { follow } from '$lib/device/follow';
  import { numberInvoices } from '$lib/device/invoice-numbers';
  import { askCardKey } from '$lib/device/cards/card-key';
  import { applyKept } from '$lib/device/receive';
  import { finishFounding } from '$lib/device/sign-up';
  import { shareSync } from '$lib/device/sync/shared-sync';
  import Awning from '$lib/ui/frame/Awning.svelte';
  import WaysAround from '$lib/ui/frame/WaysAround.svelte';
  import { faultWords } from '$lib/ui/words/fault-words';
  import { Shell } from '$lib/device/shell.svelte';
  import { showWholePages } from './show-whole-pages.svelte';
  import { provideStall, Stall } from './stall.svelte';
  import ClockOff from './ClockOff.svelte';
  import { watchForForgetting } from './watch-for-forgetting.svelte';
  import { watchForLock } from './watch-for-lock.svelte';
  import WhoIsThere from './WhoIsThere.svelte';

  interface Props {
    db: DeviceDatabase;
    identity: Identity;
    onShutOut: () => void;
    onForgotten: () => void;
    children: Snippet;
  }
  /** Some parts come when they are first needed, such as the one that makes PDFs. */
  function onunhandledrejection({ reason }: PromiseRejectionEvent): void {
    if (isPartLost(reason)) toast.error(`Not yet: ${faultWords(reason)}.`);
  }

  const { db, identity, onShutOut, onForgotten, children }: Props = $props();

  // svelte-ignore state_referenced_locally
  const stall = provideStall(new Stall(db, identity));
  const shell = new Shell();
  stall.isShellHere = () => shell.isHere;
  watchForLock(stall);
  // svelte-ignore state_referenced_locally
  watchForForgetting(stall, onForgotten);

  $effect(() => {
    const sync = shareSync(db, stall.transport, identity.device, (state) => (stall.sync = state));
    stall.tryAgain = sync.tryAgain;
    const errands = new AbortController();
    doCardErrands(stall.daybook, stall.transport, () => stall.business.currency, errands.signal);
    numberInvoices(stall.daybook, stall.transport, errands.signal);
    // Asked for while there is network, so that cards can be read when there is none.
    askCardKey(db, stall.transport).catch(() => undefined);
    // What a window that died had written but not yet applied.
    finishFounding(db)
      .then(() => stall.daybook.settle())
      .catch((error: unknown) => console.error('the rows will follow later:', error))
      .then(() => applyKept(db))
      .catch((error: unknown) => console.error('what is kept is tried again later:', error));
    // What was written before there was a mirror, and whenever somebody was forgotten, wherever that was said;
    // and room kept back for when there is none.
    const erasures = follow(
      () => db.read('erasures'),
      () => stall.mirror.follow(),
    );
    stall.mirror.reserve().then(
      (isKept) => (stall.isLowOnRoom ||= !isKept),
      () => (stall.isLowOnRoom = true),
    );
    return () => {
      erasures.unsubscribe();
      errands.abort();
      sync.end();
    };
  });

  const wholePage = showWholePages(stall);
  // The counter stands still by itself, and is typed into before the goods are read.
  const isHidden = $derived(
    !wholePage.isShown && !stall.isLocked && !page.url.pathname.startsWith('/counter'),
  );

  /** The screen that was locked is there again; the list of people has done its work. */
  function goOn(): void {
    if (page.url.pathname === '/who') void goto('/');
  }

  $effect(() => {
    if (stall.sync.pauses.has('shut out')) onShutOut();
  });

  // A new version is taken between sales: with nothing on the slip and no payment under way.
  const isBetweenSales = $derived(
    stall.isReady && stall.slip.isEmpty && !page.url.pathname.startsWith('/counter/pay'),
  );
  $effect(() => {
    if (shell.isNewWaiting && isBetweenSales && page.url.pathname !== '/counter') shell.takeOver();
  });
  $effect(() => {
    if (shell.hasJustUpdated) toast('A new version has been taken. Nothing else has changed.');
  });

  /**
   * A scanner types what it reads and ends it with Enter, wherever one is; in a field it belongs to the field. A
   * receipt opens its sale.
   */
  let scanned = '';
  function onkeydown(event: KeyboardEvent): void {
    const { target, key } = event;
    if (target instanceof HTMLElement && target.closest('input, textarea, select') !== null) return;
    if (key.length === 1 && !event.ctrlKey && !event.metaKey) scanned = (scanned + key).slice(-40);
    else if (key === 'Enter') {
      const code = receiptCodeIn(scanned);
      scanned = '';
      if (code === null) return;
      event.preventDefault();
      void goto(`/find?for=${encodeURIComponent(`${code.number} ${code.check}`)}`);
    } else if (key !== 'Shift') scanned = '';
  }
</script>

<svelte:window {onkeydown} {onunhandledrejection} />

{#if stall.isReady}
  <div class="flex h-dvh flex-col">
    <div class="print:hidden">
      <Awning
        event={stall.event}
        business={stall.business.name}
        seller={stall.seller?.name ?? null}
        standing={stall.standing}
      />
    </div>
    {#if shell.isNewWaiting && page.url.pathname === '/counter'}
      <div class="bg-card mt-4 flex items-center justify-center gap-3 p-2 text-sm">
        A new version is ready.
        {#if isBetweenSales}
          <button type="button" class="btn btn-quiet" onclick={() => shell.takeOver()}
            >Update now</button
          >
        {:else}
          It is taken after this sale.
        {/if}
      </div>
    {/if}
    <div class="flex min-h-0 flex-1 flex-col-reverse md:flex-row">
      <div class="contents print:hidden"><WaysAround path={page.url.pathname} /></div>
      <main
        class={[
          'flex min-h-0 min-w-0 flex-1 flex-col',
          isHidden && 'pointer-events-none opacity-0',
        ]}
        aria-busy={isHidden}
      >
        {#if stall.isLocked}<WhoIsThere onSignedIn={goOn} />{:else}{@render children()}{/if}
        <!-- Below, whenever it comes: nothing slides away from under a finger. -->
        <div class="mx-4 mt-auto grid shrink-0 print:hidden">
          {#if !page.url.pathname.startsWith('/counter')}<ClockOff />{/if}
          {#if stall.isLowOnRoom}
            <p class="sheet border-error my-2 border-l-8" role="alert" data-testid="no-room">
              This device has hardly any room left. What is said to be rung up is safe; free some
              room now: pictures, films or apps that are not needed.
            </p>
          {/if}
        </div>
      </main>
    </div>
  </div>
{/if}

<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { enrol } from '$lib/device/enrol';
  import { isPartLost } from '$lib/core/daybook/part-lost';
  import { takeBackIfThrownAway } from '$lib/device/mirror/mirror';
  import { openedDatabase } from '$lib/device/opened-database';
  import { askToKeep } from '$lib/device/storage';
  import { ENROL_NEEDS_NETWORK } from '$lib/ui/words/account-words';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { noTillWords } from '$lib/ui/words/fault-words';

  const db = openedDatabase();
  let code = $state(decodeURIComponent(location.hash.slice(1)));
  let isBusy = $state(false);
  let wrong = $state<string | null>(null);
  /** No answer came, which is no fault of the code: it is tried again without anybody asking. */
  let isWaiting = $state(false);
  let timer: ReturnType<typeof setTimeout> | undefined;
  const isWrong = $derived(wrong !== null && !isWaiting);
  let field = $state<HTMLInputElement>();

  async function begin(): Promise<void> {
    if (isBusy) return;
    stopWaiting();
    isBusy = true;
    wrong = null;
    try {
      await takeBackIfThrownAway(db);
      const result = await enrol(db, code.trim(), deviceName());
      if (result.ok) {
        void askToKeep();
        await goto((await db.read('choices'))?.by == null ? '/who' : '/', { replaceState: true });
        return;
      }
      wrong = wrongOf(result.asked, ENROL_NEEDS_NETWORK);
      if (result.asked.came === 'nothing') tryAgainSoon();
    } catch (error) {
      wrong = noTillWords(error);
      if (isPartLost(error)) tryAgainSoon();
    }
    isBusy = false;
    if (!isWaiting) field?.focus();
  }

  const AGAIN = 4000;
  function tryAgainSoon(): void {
    isWaiting = true;
    timer = setTimeout(() => void begin(), AGAIN);
  }
  function stopWaiting(): void {
    clearTimeout(timer);
    isWaiting = false;
  }

  /** What kind of thing this is, until somebody gives it a name. */
  function deviceName(): string {
    if (matchMedia('(pointer: coarse)').matches) return innerWidth < 700 ? 'Phone' : 'Tablet';
    return 'Desk browser';
  }

  // The printed address carries the code: then nothing is left to do.
  onMount(() => {
    if (code !== '') void begin();
    return stopWaiting;
  });
</script>

<svelte:window ononline={() => isWaiting && void begin()} />

<main class="mx-auto grid min-h-dvh max-w-md content-center gap-6 p-6">
  <h1>Make this browser a till</h1>
  <p>It is enrolled once. After that it starts and sells with no network at all.</p>
  <form
    class="grid gap-3"
    onsubmit={(event) => {
      event.preventDefault();
      void begin();
    }}
  >
    <label class="font-[560]" for="code">Code</label>
    <input
      id="code"
      bind:this={field}
      bind:value={code}
      oninput={stopWaiting}
      class={['input code w-full text-xl tracking-widest uppercase', isWrong && '!border-error']}
      autocomplete="one-time-code"
      autocapitalize="characters"
      spellcheck="false"
      aria-invalid={isWrong}
      aria-describedby="code-help"
    />
    <p
      id="code-help"
      class={isWrong ? 'text-error' : 'soft'}
      role={wrong === null ? undefined : 'alert'}
    >
      {wrong ?? 'Ten letters and figures, from the start command or from an enrolled device.'}
      {#if isWaiting}It is tried again by itself while this page is open.{/if}
    </p>
    <button class="btn btn-main" disabled={isBusy || code.trim().length < 4}>
      {#if isBusy}Taking in the goods …{:else if isWaiting}Try again now{:else}Enrol this browser{/if}
    </button>
  </form>
</main>

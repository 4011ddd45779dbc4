<script lang="ts">
  /** The address that other calendars follow the events by; it can be withdrawn. */
  import {
    calendarGivenSchema,
    calendarSchema,
    doneSchema,
  } from '$lib/core/access/account-messages';
  import { askServer } from '$lib/device/sync/ask-server';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import AskProof from './AskProof.svelte';

  let made = $state<string | null>(null);
  let address = $state('');
  let wrong = $state('');
  /** An owner shows who it is first. */
  let isToProve = $state(false);
  async function look(): Promise<void> {
    const asked = await askServer({ path: '/api/account/calendar' }, calendarSchema);
    if (asked.came === 'answer') ({ made } = asked.answer);
  }
  $effect(() => void look());

  async function give(): Promise<void> {
    const asked = await askServer({ path: '/api/account/calendar', body: {} }, calendarGivenSchema);
    const isAsked = asked.came === 'refusal' && asked.refusal.code === 'proof/needed';
    isToProve = isAsked;
    wrong = asked.came === 'refusal' && !isAsked ? asked.refusal.message : '';
    if (asked.came === 'answer') ({ address } = asked.answer);
    await look();
  }
  async function withdraw(): Promise<void> {
    await askServer({ path: '/api/account/calendar', method: 'DELETE' }, doneSchema);
    address = '';
    await look();
  }
</script>

<section class="sheet grid gap-3" aria-labelledby="calendar">
  <h2 id="calendar">Events in other calendars</h2>
  <p class="soft">
    Whoever has this address reads the names, places and hours of all events, and nothing else.
  </p>
  {#if address !== ''}
    <label class="grid gap-1 font-[560]">
      The address; it is shown this once
      <input class="input code w-full" readonly value={address} />
    </label>
  {:else if made !== null}
    <p>There is an address since {shortDayWords(made.slice(0, 10), navigator.language)}.</p>
  {/if}
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  {#if isToProve}<AskProof onProved={give} onBack={() => (isToProve = false)} />{/if}
  <div class="flex flex-wrap gap-2">
    <button type="button" class="btn btn-quiet" onclick={give}
      >{made === null ? 'Make an address' : 'Make another one'}</button
    >
    {#if made !== null}
      <button type="button" class="btn btn-quiet" onclick={withdraw}>Withdraw it</button>
    {/if}
  </div>
</section>

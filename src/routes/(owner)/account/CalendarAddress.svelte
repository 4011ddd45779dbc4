<script lang="ts">
  /** The address that other calendars follow the events by; it can be withdrawn. */
  import { calendarGivenSchema, doneSchema } from '$lib/core/access/account-messages';
  import { askServer } from '$lib/device/sync/ask-server';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import AskProof from './AskProof.svelte';

  interface Props {
    /** Since when there is one. */
    made: string | null;
    onChanged: () => void;
  }
  const { made, onChanged }: Props = $props();
  let address = $state('');
  let wrong = $state('');
  /** An owner shows who it is first. */
  let isToProve = $state(false);
  async function give(): Promise<void> {
    const asked = await askServer({ path: '/api/account/calendar', body: {} }, calendarGivenSchema);
    isToProve = asked.came === 'refusal' && asked.refusal.code === 'proof/needed';
    wrong = isToProve ? '' : wrongOf(asked);
    if (asked.came !== 'answer') return;
    ({ address } = asked.answer);
    onChanged();
  }
  async function withdraw(): Promise<void> {
    const path = '/api/account/calendar';
    const asked = await askServer({ path, method: 'DELETE', isHarmless: true }, doneSchema);
    wrong = wrongOf(asked);
    if (asked.came !== 'answer') return;
    address = '';
    onChanged();
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

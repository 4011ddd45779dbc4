<script lang="ts">
  import { doneSchema, unsentSchema, type SeenDevice } from '$lib/core/access/account-messages';
  import { askServer } from '$lib/device/sync/ask-server';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import AskProof from './AskProof.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { kindInWords } from '$lib/ui/words/loose-end-words';
  import type { z } from 'zod';

  interface Props {
    device: SeenDevice;
    onDone: () => void;
  }
  const { device, onDone }: Props = $props();
  type Unsent = z.infer<typeof unsentSchema>['entries'];
  let entries = $state.raw<Unsent>([]);
  let says = $state('');
  /** What is to be done as soon as the owner has shown who it is: to take them in, or not. */
  let toProve = $state<boolean | null>(null);
  const path = $derived(`/api/devices/${device.device}/unsent`);

  async function look(): Promise<void> {
    const answer = await askServer({ path, isHarmless: true }, unsentSchema);
    says = wrongOf(answer);
    if (answer.came === 'answer') entries = answer.answer.entries;
  }

  async function decide(take: boolean): Promise<void> {
    toProve = null;
    const upTo = entries.at(-1)?.seq ?? 0;
    const answer = await askServer({ path, body: { upTo, take } }, doneSchema);
    if (answer.came === 'answer') onDone();
    else if (answer.came === 'refusal' && answer.refusal.code === 'proof/needed') toProve = take;
    else says = wrongOf(answer);
  }
</script>

<div class="bg-base-200 grid gap-2 rounded-lg p-3">
  <p>
    It had not sent {device.unsent}
    {device.unsent === 1 ? 'entry' : 'entries'} when it was shut out. They are in no figure yet.
  </p>
  {#if entries.length === 0}
    <button type="button" class="btn btn-quiet justify-self-start" onclick={look}
      >Look at them</button
    >
  {:else}
    <ul class="grid max-h-72 gap-1 overflow-y-auto" data-testid="unsent">
      {#each entries as entry (entry.seq)}
        <li class="flex flex-wrap gap-x-3">
          <span class="soft">{shortDayWords(entry.at.slice(0, 10), navigator.language)}</span>
          <span>{kindInWords(entry.kind)}</span>
          <span class="min-w-0 break-words">{entry.about}</span>
        </li>
      {/each}
    </ul>
    <div class="flex flex-wrap gap-2">
      <button type="button" class="btn btn-quiet" onclick={() => decide(true)}
        >Take all of it in</button
      >
      <button
        type="button"
        class="btn btn-quiet !border-error text-error"
        onclick={() => decide(false)}>Discard</button
      >
    </div>
  {/if}
  {#if toProve !== null}
    {@const take = toProve}
    <AskProof onProved={() => decide(take)} onBack={() => (toProve = null)} />
  {/if}
  {#if says !== ''}<p class="text-error" role="alert">{says}</p>{/if}
</div>

<script lang="ts">
  import type { PracticeReader } from '$lib/device/cards/practice-reader.svelte';
  import PracticeOutcome from './PracticeOutcome.svelte';

  interface Props {
    reader: PracticeReader;
  }
  const { reader }: Props = $props();
  let outcome = $state('approve');
  const FAULTS = [
    { is: 'wrong PIN', words: 'Wrong PIN' },
    { is: 'timed out', words: 'No card comes' },
    { is: 'lost power', words: 'Reader dies' },
  ] as const;
</script>

<div class="bg-base-200 grid gap-3 rounded-lg p-3" role="group" aria-label="Practice reader">
  <PracticeOutcome bind:outcome />
  <div class="flex flex-wrap gap-2">
    {#each ['tap', 'insert', 'swipe'] as const as entry (entry)}
      <button
        type="button"
        class="btn btn-quiet capitalize"
        disabled={!reader.isReading}
        onclick={() => reader.hold({ entry, outcome })}>{entry}</button
      >
    {/each}
    {#each FAULTS as { is, words } (is)}
      <button
        type="button"
        class="btn btn-quiet"
        disabled={!reader.isReading}
        onclick={() => reader.fail(is)}>{words}</button
      >
    {/each}
    <button
      type="button"
      class="btn btn-quiet"
      disabled={!reader.isReading}
      onclick={() => reader.hold({ entry: 'tap', outcome, showsOff: 100 })}>Shows 1.00 more</button
    >
  </div>
</div>

<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { earlierStages, goBack, stageOf } from '$lib/core/event/stage';
  import { newId } from '$lib/device/new-id';
  import Bunting from '$lib/ui/event/Bunting.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import { backFault, stageWords } from '$lib/ui/words/event-words';
  import { StallForm as Form } from '../../forms/stall-form.svelte';
  import StallForm from '../../forms/StallForm.svelte';

  interface Props {
    event: Row<'events'>;
  }
  const { event }: Props = $props();
  const stage = $derived(stageOf(event));
  const earlier = $derived(earlierStages(event));
  /** It went back, and nothing further has been reached since. */
  const isBack = $derived(event.backStamp !== '' && event.backTo === stage);
  let isAsking = $state(false);
  // svelte-ignore state_referenced_locally
  const form = new Form({
    about: `back ${event.id}`,
    from: `${event.backStamp} ${stage}`,
    begin: { to: earlier[0] ?? 'planned', why: '' },
    command:
      ({ to, why }) =>
      () =>
        goBack({ newId, event, to, why }),
    says: backFault,
    saved: ({ to }) => `${event.short} is ${stageWords[to]} again.`,
    then: () => (isAsking = false),
  });
</script>

<div class="grid gap-2">
  <Bunting {stage} />
  {#if isBack}<p class="soft" data-testid="went-back">Went back: {event.backWhy}</p>{/if}
  {#if isAsking}
    <StallForm
      {form}
      right="event.plan"
      class="sheet grid gap-3"
      label="Go back"
      name="Go back to an earlier stage"
    >
      <label class="grid gap-1 font-[560]">
        Back to
        <select class="select min-h-12 w-full" bind:value={form.typed.to}>
          {#each earlier as each (each)}<option value={each}>{stageWords[each]}</option>{/each}
        </select>
      </label>
      <Field label="Why" at="why" bind:value={form.typed.why} maxlength={500} />
      <p class="soft">What was sold and counted stays as it is.</p>
      {#snippet beside()}
        <button type="button" class="btn btn-quiet" onclick={() => (isAsking = false)}
          >Leave it</button
        >
      {/snippet}
    </StallForm>
  {:else if earlier.length > 0}
    <button type="button" class="btn btn-quiet justify-self-end" onclick={() => (isAsking = true)}
      >Go back a stage …</button
    >
  {/if}
</div>

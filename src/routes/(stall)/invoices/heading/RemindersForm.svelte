<!-- What is written to customers whose invoices are overdue, one letter after another. -->
<script lang="ts">
  import {
    FILLED_IN,
    FIRST_WORDS,
    setReminders,
    type TypedStep,
  } from '$lib/core/invoice/reminders';
  import { newId } from '$lib/device/new-id';
  import Area from '$lib/ui/forms/Area.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import { remindersRefusalWords } from '$lib/ui/words/invoice-words';
  import { StallForm as Form } from '../../forms/stall-form.svelte';
  import StallForm from '../../forms/StallForm.svelte';
  import { useStall } from '../../stall.svelte';

  const stall = useStall();
  const { reminders, remindersStamp } = stall.business;
  const MOST = 5;
  const asTyped = (step: (typeof reminders)[number]): TypedStep => ({
    ...step,
    days: String(step.days),
  });
  const form = new Form({
    about: 'reminders',
    from: remindersStamp,
    begin: { steps: (remindersStamp === '' ? FIRST_WORDS : reminders).map(asTyped) },
    command: (typed) => () => setReminders(newId, typed.steps),
    says: (refusal) => ({ field: refusal.field, says: remindersRefusalWords(refusal) }),
    saved: ({ steps }) =>
      steps.length === 0
        ? 'Saved. Nobody is reminded.'
        : 'Saved. Reminders are worded so from now on.',
  });
  const { typed } = form;
</script>

<section class="sheet grid gap-3" aria-labelledby="reminders">
  <h2 id="reminders">Reminders</h2>
  <p class="soft">
    Letters by mail about what is overdue, sent from the list of invoices when you say so, each
    once. In braces is what is filled in: {FILLED_IN.map((each) => `{${each}}`).join(' ')}. The
    invoice goes with it.
    {#if remindersStamp === ''}<b>These are proposed: save them to use them.</b>{/if}
  </p>
  <StallForm {form} class="grid grid-cols-[minmax(0,1fr)] gap-4" name="Reminders" look="btn-quiet">
    {#each typed.steps as step, at (at)}
      <fieldset
        class="border-base-300 grid grid-cols-[minmax(0,1fr)] gap-3 border-b border-dashed pb-4 sm:grid-cols-[9rem_minmax(0,1fr)]"
        aria-label={`Reminder ${String(at + 1)}`}
      >
        <Field
          label="Days overdue"
          bind:value={step.days}
          inputmode="numeric"
          at={`steps.${String(at)}.days`}
        />
        <Field
          label="Subject"
          bind:value={step.subject}
          at={`steps.${String(at)}.subject`}
          maxlength={120}
        />
        <div class="sm:col-span-2">
          <Area
            label="Words"
            bind:value={step.text}
            at={`steps.${String(at)}.text`}
            rows={6}
            maxlength={2000}
          />
        </div>
      </fieldset>
    {/each}
    <div class="flex flex-wrap gap-2">
      {#if typed.steps.length < MOST}
        <button
          type="button"
          class="btn btn-quiet"
          onclick={() => typed.steps.push({ days: '', subject: '', text: '' })}
          >Another reminder</button
        >
      {/if}
      {#if typed.steps.length > 0}
        <button type="button" class="btn btn-quiet" onclick={() => typed.steps.pop()}
          >Take the last one off</button
        >
      {/if}
    </div>
  </StallForm>
</section>

<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { setMaker } from '$lib/core/founding/set-business';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { businessFault } from '$lib/ui/words/business-words';
  import { StallForm as Form } from '../forms/stall-form.svelte';
  import StallForm from '../forms/StallForm.svelte';

  interface Props {
    maker?: Row<'makers'>;
    makers: readonly Row<'makers'>[];
    onDone?: () => void;
  }
  const { maker, makers, onDone = () => undefined }: Props = $props();
  // svelte-ignore state_referenced_locally
  const start = maker;
  const form = new Form({
    about: `maker ${start?.id ?? 'new'}`,
    from: start?.setStamp ?? '',
    begin: {
      number: String(start?.number ?? ''),
      name: start?.name ?? '',
      commission: start?.commission ?? '30',
      email: start?.email ?? '',
      isActive: start?.isActive ?? true,
    },
    command: (typed) => () => setMaker(newId, { id: start?.id ?? null, ...typed }, makers),
    says: businessFault,
    saved: ({ name }) => `${name.trim()} is saved.`,
    then: () => onDone(),
  });
  const { typed } = form;
</script>

<StallForm
  {form}
  class="sheet grid items-start gap-3 sm:grid-cols-[6rem_1fr_9rem_1fr]"
  name={start?.name ?? 'A new maker'}
  look="btn-quiet"
>
  <Field label="Number" at="number" bind:value={typed.number} inputmode="numeric" />
  <Field label="Name" at="name" bind:value={typed.name} maxlength={80} />
  <Field label="Commission, %" at="commission" bind:value={typed.commission} inputmode="decimal" />
  <Field
    label="E-mail, for statements"
    at="email"
    bind:value={typed.email}
    type="email"
    maxlength={120}
  />
  {#if start !== undefined}
    <div class="sm:col-span-4"><Tick label="Brings goods" bind:checked={typed.isActive} /></div>
  {/if}
</StallForm>

<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { setTax } from '$lib/core/founding/set-business';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { businessFault } from '$lib/ui/words/business-words';
  import { StallForm as Form } from '../forms/stall-form.svelte';
  import StallForm from '../forms/StallForm.svelte';

  interface Props {
    tax?: Row<'taxes'>;
    taxes: readonly Row<'taxes'>[];
    /** Goods that carry it. */
    carriers: number;
    onDone?: () => void;
  }
  const { tax, taxes, carriers, onDone = () => undefined }: Props = $props();
  // svelte-ignore state_referenced_locally
  const start = tax;
  const LEVELS = ['country', 'region', 'local'] as const;
  const form = new Form({
    about: `tax ${start?.id ?? 'new'}`,
    from: start?.setStamp ?? '',
    begin: {
      name: start?.name ?? '',
      rate: start?.rate ?? '',
      level: start?.level ?? 'country',
      on: [...(start?.on ?? [])],
      isActive: start?.isActive ?? true,
    },
    command: (typed) => () => setTax(newId, { id: start?.id ?? null, ...typed }, taxes),
    says: businessFault,
    saved: ({ name }) => `${name.trim()} is saved.`,
    then: () => onDone(),
  });
  const { typed } = form;
  const before = $derived(
    taxes.filter((each) => each.isActive && each.sort < (start?.sort ?? Infinity)),
  );
  const isChanged = $derived(start !== undefined && typed.rate.trim() !== start.rate);
</script>

<StallForm
  {form}
  class="sheet grid items-start gap-3 sm:grid-cols-[1fr_8rem_10rem]"
  name={start?.name ?? 'A new tax'}
  look="btn-quiet"
>
  <Field label="Name" bind:value={typed.name} maxlength={80} at="name" />
  <Field label="Percent" bind:value={typed.rate} inputmode="decimal" at="rate" />
  <label class="grid gap-1 font-[560]">
    Level
    <select class="select min-h-12 w-full" bind:value={typed.level}>
      {#each LEVELS as each (each)}<option value={each}>{each}</option>{/each}
    </select>
  </label>
  {#if before.length > 0}
    <fieldset class="flex flex-wrap gap-x-4 sm:col-span-3">
      <legend class="font-[560]">Charged on top of</legend>
      {#each before as each (each.id)}
        <label class="flex min-h-12 items-center gap-2">
          <input
            type="checkbox"
            class="checkbox size-6 !rounded-md"
            bind:group={typed.on}
            value={each.id}
          />
          {each.name}
        </label>
      {/each}
    </fieldset>
  {/if}
  {#if start !== undefined}
    <div class="sm:col-span-3"><Tick label="Is charged" bind:checked={typed.isActive} /></div>
  {/if}
  {#if isChanged && carriers > 0}
    <p class="soft sm:col-span-3">
      {carriers}
      {carriers === 1 ? 'item carries' : 'items carry'} it. Sales so far keep {start?.rate} %.
    </p>
  {/if}
</StallForm>

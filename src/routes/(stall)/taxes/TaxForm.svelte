<script lang="ts">
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { setTax, type BusinessRefusal } from '$lib/core/founding/set-business';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { draftOr, dropDraft, keepDraft } from '$lib/ui/forms/typed-draft.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { businessRefusalWords } from '$lib/ui/words/business-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    tax?: Row<'taxes'>;
    taxes: readonly Row<'taxes'>[];
    /** Goods that carry it. */
    carriers: number;
    onDone?: () => void;
  }
  const { tax, taxes, carriers, onDone = () => undefined }: Props = $props();
  const stall = useStall();
  // svelte-ignore state_referenced_locally
  const start = tax;
  const LEVELS = ['country', 'region', 'local'] as const;
  const [form, from] = [`tax ${start?.id ?? 'new'}`, start?.setStamp ?? ''];
  const begin = {
    name: start?.name ?? '',
    rate: start?.rate ?? '',
    level: LEVELS.find((each) => each === start?.level) ?? 'country',
    on: [...(start?.on ?? [])],
    isActive: start?.isActive ?? true,
  };
  let typed = $state(draftOr(form, from, begin));
  keepDraft(form, from, () => $state.snapshot(typed));
  let wrong = $state.raw<BusinessRefusal | null>(null);
  const before = $derived(
    taxes.filter((each) => each.isActive && each.sort < (start?.sort ?? Infinity)),
  );
  const isChanged = $derived(start !== undefined && typed.rate.trim() !== start.rate);

  async function save(lentBy?: string): Promise<void> {
    const said = { id: start?.id ?? null, ...$state.snapshot(typed) };
    const outcome = await stall.daybook.append(
      () => setTax(newId, said, taxes),
      lentBy === undefined ? {} : { lentBy },
    );
    wrong = !outcome.ok && 'field' in outcome.refusal ? outcome.refusal : null;
    if (!outcome.ok) return;
    dropDraft(form);
    await stall.daybook.settle();
    toast(`${said.name.trim()} is saved.`);
    onDone();
  }
</script>

<form
  class="sheet grid items-end gap-3 sm:grid-cols-[1fr_8rem_10rem]"
  aria-label={start?.name ?? 'A new tax'}
  onsubmit={(event) => event.preventDefault()}
>
  <Field label="Name" bind:value={typed.name} maxlength={80} isWrong={wrong?.field === 'name'} />
  <Field
    label="Percent"
    bind:value={typed.rate}
    inputmode="decimal"
    isWrong={wrong?.field === 'rate'}
  />
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
  {#if wrong !== null}
    <p class="text-error sm:col-span-3" role="alert">{businessRefusalWords(wrong)}</p>
  {/if}
  <div class="sm:col-span-3">
    <RightButton right="set-up" label="Save" look="btn-quiet" onGo={save} />
  </div>
</form>

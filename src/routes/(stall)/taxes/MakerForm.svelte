<script lang="ts">
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { setMaker, type BusinessRefusal } from '$lib/core/founding/set-business';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { draftOr, dropDraft, keepDraft } from '$lib/ui/forms/typed-draft.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { businessRefusalWords } from '$lib/ui/words/business-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    maker?: Row<'makers'>;
    makers: readonly Row<'makers'>[];
    onDone?: () => void;
  }
  const { maker, makers, onDone = () => undefined }: Props = $props();
  const stall = useStall();
  // svelte-ignore state_referenced_locally
  const start = maker;
  const [form, from] = [`maker ${start?.id ?? 'new'}`, start?.setStamp ?? ''];
  const begin = {
    number: String(start?.number ?? ''),
    name: start?.name ?? '',
    commission: start?.commission ?? '30',
    isActive: start?.isActive ?? true,
  };
  let typed = $state(draftOr(form, from, begin));
  keepDraft(form, from, () => $state.snapshot(typed));
  let wrong = $state.raw<BusinessRefusal | null>(null);

  async function save(lentBy?: string): Promise<void> {
    const said = { id: start?.id ?? null, ...$state.snapshot(typed) };
    const outcome = await stall.daybook.append(
      () => setMaker(newId, said, makers),
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
  class="sheet grid items-end gap-3 sm:grid-cols-[6rem_1fr_9rem]"
  aria-label={start?.name ?? 'A new maker'}
  onsubmit={(event) => event.preventDefault()}
>
  <Field
    label="Number"
    bind:value={typed.number}
    inputmode="numeric"
    isWrong={wrong?.field === 'number'}
  />
  <Field label="Name" bind:value={typed.name} maxlength={80} isWrong={wrong?.field === 'name'} />
  <Field
    label="Commission, %"
    bind:value={typed.commission}
    inputmode="decimal"
    isWrong={wrong?.field === 'commission'}
  />
  {#if start !== undefined}
    <div class="sm:col-span-3"><Tick label="Brings goods" bind:checked={typed.isActive} /></div>
  {/if}
  {#if wrong !== null}
    <p class="text-error sm:col-span-3" role="alert">{businessRefusalWords(wrong)}</p>
  {/if}
  <div class="sm:col-span-3">
    <RightButton right="set-up" label="Save" look="btn-quiet" onGo={save} />
  </div>
</form>

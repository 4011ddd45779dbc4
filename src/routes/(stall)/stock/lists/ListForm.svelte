<script lang="ts">
  import { goto } from '$app/navigation';
  import { BASE, type Row } from '$lib/core/books/tables';
  import type { ListUse } from '$lib/core/daybook/kinds/list-set';
  import { setList } from '$lib/core/stock/set-list';
  import { newId } from '$lib/device/new-id';
  import Choice from '$lib/ui/forms/Choice.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import { listFault, useWords } from '$lib/ui/words/stock-words';
  import { StallForm as Form } from '../../forms/stall-form.svelte';
  import StallForm from '../../forms/StallForm.svelte';
  import { useStall } from '../../stall.svelte';
  import { Goods } from '../goods.svelte';

  interface Props {
    use: ListUse;
    /** What is known already: event, from, to, supplier. */
    asked?: URLSearchParams;
    list?: Row<'lists'>;
  }
  const { use, asked, list }: Props = $props();
  const stall = useStall();
  const goods = new Goods(stall);
  const { books } = stall.db;
  // svelte-ignore state_referenced_locally
  const [sort, known, given] = [use, list, asked];
  const isOfEvent = sort === 'load' || sort === 'unload';
  const event = given?.get('event') ?? (isOfEvent ? nextEvent() : '');
  const form = new Form({
    about: `list ${sort} ${known?.id ?? 'new'}`,
    from: known?.setStamp ?? '',
    begin: {
      name: known?.name ?? '',
      event: known?.event ?? event,
      from: known?.from ?? given?.get('from') ?? (sort === 'unload' ? event : BASE),
      to: known?.to ?? given?.get('to') ?? (sort === 'load' ? event : BASE),
      supplier: known?.supplier ?? given?.get('supplier') ?? '',
      van: known?.van ?? '',
      day: known?.day ?? '',
      note: known?.note ?? '',
    },
    command: async (typed) => {
      const lists = await books.lists.toArray();
      const at = isOfEvent ? typed.event : null;
      const ends = {
        from: sort === 'unload' ? typed.event : typed.from,
        to: sort === 'load' ? typed.event : typed.to,
      };
      return () =>
        setList({
          newId,
          known: known ?? null,
          typed: { ...typed, ...ends, use: sort },
          event: at === '' ? null : at,
          deviceNumber: stall.identity.number,
          lists,
        });
    },
    says: listFault,
    saved: ({ name }) => `${name.trim() || useWords[sort]} is saved.`,
    then: (id) => goto(`/stock/lists/${id}`),
  });
  const { typed } = form;
  const vans = $derived([
    { value: '', label: 'no limits' },
    ...goods.places
      .filter(({ sort: is, isActive }) => is === 'van' && isActive)
      .map(({ id }) => ({ value: id, label: goods.placeName(id) })),
  ]);
  const suppliers = $derived([
    ...(sort === 'order' ? [{ value: '', label: 'another place of our own' }] : []),
    ...goods.suppliers
      .filter(({ isActive }) => isActive)
      .map(({ id, name }) => ({ value: id, label: name })),
  ]);
  const own = $derived(goods.choices);

  /** The one that is packed next. */
  function nextEvent(): string {
    const coming = stall.events.filter(({ days }) => (days.at(-1)?.date ?? '') >= stall.today);
    return coming.at(-1)?.id ?? '';
  }
</script>

<StallForm {form} right={null} label={known === undefined ? 'Make the list' : 'Save'}>
  <section class="sheet grid items-start gap-4 sm:grid-cols-2" aria-label="What it is">
    {#if isOfEvent}
      <Choice label="Event" options={goods.events} bind:value={typed.event} />
    {/if}
    {#if sort === 'order' || sort === 'back'}
      <Choice label="Supplier" options={suppliers} bind:value={typed.supplier} />
    {/if}
    {#if sort !== 'unload' && !(sort === 'order' && typed.supplier !== '')}
      <Choice label="From" options={own} bind:value={typed.from} />
    {/if}
    {#if sort !== 'load' && sort !== 'back'}
      <Choice label="To" options={own} bind:value={typed.to} />
    {/if}
    {#if sort === 'load' && vans.length > 1}
      <Choice label="Carried in" options={vans} bind:value={typed.van} />
    {/if}
    <Field
      label="Name"
      bind:value={typed.name}
      maxlength={80}
      autocomplete="off"
      help="Left empty, {useWords[sort]}"
    />
    {#if sort === 'order' || sort === 'transfer'}
      <Field label="Wanted by" type="date" bind:value={typed.day} />
    {/if}
    <div class="sm:col-span-2"><Field label="Note" bind:value={typed.note} maxlength={500} /></div>
  </section>
</StallForm>

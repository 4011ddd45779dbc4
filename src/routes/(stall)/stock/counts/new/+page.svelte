<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { BASE } from '$lib/core/books/tables';
  import { categoryName } from '$lib/core/goods/categories';
  import { beginCount } from '$lib/core/stock/count';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import Choice from '$lib/ui/forms/Choice.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { countFault } from '$lib/ui/words/stock-words';
  import { StallForm as Form } from '../../../forms/stall-form.svelte';
  import StallForm from '../../../forms/StallForm.svelte';
  import { useStall } from '../../../stall.svelte';
  import { Goods } from '../../goods.svelte';

  const stall = useStall();
  const { books } = stall.db;
  const goods = new Goods(stall);
  const categories = live(() => () => books.categories.toArray(), []);
  const form = new Form({
    about: 'count new',
    from: '',
    begin: {
      name: '',
      place: page.url.searchParams.get('place') ?? stall.event?.id ?? BASE,
      category: '',
      isBlind: false,
    },
    command: async (typed) => {
      const counts = await books.counts.toArray();
      const event = stall.events.some(({ id }) => id === typed.place) ? typed.place : null;
      const name = typed.name.trim() || `Count of ${goods.placeName(typed.place)}`;
      return () =>
        beginCount({
          ...typed,
          name,
          newId,
          event,
          deviceNumber: stall.identity.number,
          counts,
        });
    },
    says: countFault,
    saved: () => 'The count has begun; selling goes on.',
    then: (id) => goto(`/stock/counts/${id}`),
  });
  const { typed } = form;
  const inUse = $derived([
    { value: '', label: 'everything' },
    ...[...new Set(goods.stocked.map(({ category }) => category))]
      .filter((each) => each !== '')
      .map((each) => ({ value: each, label: categoryName(each, categories.value) })),
  ]);
</script>

<div class="page page-text gap-5">
  <h1>Begin a count</h1>
  <StallForm {form} right={null} label="Begin">
    <section class="sheet grid items-start gap-4 sm:grid-cols-2" aria-label="What is counted">
      <Choice label="Place" options={goods.choices} bind:value={typed.place} />
      <Choice label="Of it" options={inUse} bind:value={typed.category} />
      <Field label="Name" bind:value={typed.name} maxlength={80} autocomplete="off" />
      <div class="self-end">
        <Tick
          label="Blind: whoever counts does not see what should be there"
          bind:checked={typed.isBlind}
        />
      </div>
    </section>
  </StallForm>
</div>

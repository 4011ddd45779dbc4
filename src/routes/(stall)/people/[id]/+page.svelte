<script lang="ts">
  import { page } from '$app/state';
  import { live } from '$lib/device/live.svelte';
  import ActList from '../../acts/ActList.svelte';
  import { useStall } from '../../stall.svelte';
  import PayForm from './PayForm.svelte';
  import PersonForm from './PersonForm.svelte';

  const stall = useStall();
  const { db } = stall;
  const id = $derived(page.params['id'] ?? 'new');
  const person = $derived(stall.everybody.find((each) => each.id === id));
  const acts = live(() => {
    const by = id;
    return async () => (await db.books.acts.where('by').equals(by).sortBy('at')).reverse();
  }, []);
  const sales = live(() => {
    const [by, event] = [id, stall.event?.id];
    return async () =>
      event === undefined
        ? []
        : await db.books.sales
            .where('event')
            .equals(event)
            .filter((sale) => sale.by === by)
            .toArray();
  }, []);
  const takings = $derived(sales.value.reduce((sum, { total }) => sum + total, 0));
</script>

<div class="page page-text gap-5">
  {#if id === 'new'}
    <h1>{stall.everybody.length === 0 ? 'Set up the owner' : 'Add a person'}</h1>
    <PersonForm />
  {:else if person === undefined}
    <h1>Nobody of that name</h1>
    <p class="sheet">
      This device knows no such person. <a class="plain" href="/people">People</a>
    </p>
  {:else}
    <h1>{person.name}</h1>
    {#key person.setStamp}<PersonForm {person} />{/key}
    {#if stall.may('set-up')}{#key person.id}<PayForm {person} />{/key}{/if}
    <section class="sheet grid gap-2" aria-labelledby="did">
      <h2 id="did">What {person.name} did</h2>
      <p data-testid="rang-up">
        {sales.value.length}
        {sales.value.length === 1 ? 'sale' : 'sales'} today, {stall.money.text(takings)}
      </p>
      <ActList acts={acts.value} />
    </section>
  {/if}
</div>

<!-- One standing charge, or a new one: what it is, when it is made next, and what became of it. -->
<script lang="ts">
  import { page } from '$app/state';
  import { isKnown } from '$lib/core/event/todays-event';
  import { byRecord, people } from '$lib/core/customer/joined';
  import { triesOf } from '$lib/device/charges';
  import { live } from '$lib/device/live.svelte';
  import { useStall } from '../../../stall.svelte';
  import NotHeaded from '../../NotHeaded.svelte';
  import ChargeForm from './ChargeForm.svelte';
  import ChargeStands from './ChargeStands.svelte';

  const stall = useStall();
  const { db } = stall;
  const id = $derived(page.params['id'] ?? 'new');
  const wanted = $derived(page.url.searchParams.get('customer') ?? '');
  const found = live(() => {
    const charge = id;
    return async () => {
      const [row, customers, taxes, ways, goods, tries] = await Promise.all([
        charge === 'new' ? undefined : db.books.charges.get(charge),
        db.books.customers.toArray(),
        db.books.taxes.toArray(),
        db.books.ways.toArray(),
        db.books.items.toArray(),
        triesOf(db, charge),
      ]);
      return {
        ...{ customers, taxes, ways, tries },
        charge: row !== undefined && isKnown(row) ? row : undefined,
        goods: goods.filter(({ isActive }) => isActive),
      };
    };
  }, undefined);
  const charge = $derived(found.value?.charge);
  const person = $derived(
    charge === undefined ? undefined : byRecord(found.value?.customers ?? []).get(charge.customer),
  );
  const choices = $derived(
    people(found.value?.customers ?? []).filter(
      (each) => isKnown(each) && !each.isErased && each.isActive,
    ),
  );
</script>

<div class="page page-text gap-5">
  {#if found.value === undefined}
    <h1>Standing charge</h1>
  {:else if stall.business.invoicing === null}
    <h1>Standing charge</h1>
    <NotHeaded />
  {:else if id === 'new'}
    <h1>A standing charge</h1>
    {#if choices.length === 0}
      <p class="sheet">
        There is nobody to charge. <a class="plain" href="/customers/new">Add a customer</a>
      </p>
    {:else}
      {#key wanted}
        <ChargeForm
          customers={choices}
          rows={found.value.customers}
          taxes={found.value.taxes}
          ways={found.value.ways}
          goods={found.value.goods}
          customer={wanted}
        />
      {/key}
    {/if}
  {:else if charge === undefined}
    <h1>No standing charge of that kind</h1>
    <p class="sheet">
      This device knows no such charge. <a class="plain" href="/invoices/charges"
        >Standing charges</a
      >
    </p>
  {:else}
    <h1>{charge.lines[0]?.name}</h1>
    <ChargeStands {charge} {person} tries={found.value.tries} />
    {#if person !== undefined && !person.isErased}
      {#key charge.setStamp}
        <ChargeForm
          {charge}
          customers={[{ ...person, id: charge.customer }]}
          rows={found.value.customers}
          taxes={found.value.taxes}
          ways={found.value.ways}
          goods={found.value.goods}
        />
      {/key}
    {/if}
    <p>
      <a class="plain" href="/invoices/charges">All standing charges</a
      >{#if person !== undefined && !person.isErased},
        <a class="plain" href="/customers/{person.id}">{person.name}</a>{/if}
    </p>
  {/if}
</div>

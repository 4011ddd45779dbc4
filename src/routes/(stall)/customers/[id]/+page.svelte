<script lang="ts">
  import { page } from '$app/state';
  import { cardHolder } from '$lib/core/customer/card-on-file';
  import { personOf } from '$lib/device/customer-records';
  import { live } from '$lib/device/live.svelte';
  import { useStall } from '../../stall.svelte';
  import Account from './Account.svelte';
  import CardOnFile from './CardOnFile.svelte';
  import CustomerCharges from './CustomerCharges.svelte';
  import CustomerInvoices from './CustomerInvoices.svelte';
  import CustomerOrders from './CustomerOrders.svelte';
  import CustomerPoints from './CustomerPoints.svelte';
  import Consent from './Consent.svelte';
  import CustomerForm from './CustomerForm.svelte';
  import Forget from './Forget.svelte';
  import Records from './Records.svelte';

  const { db } = useStall();
  const id = $derived(page.params['id'] ?? 'new');
  const found = live(() => {
    const wanted = id;
    return () => personOf(db, wanted);
  }, undefined);
  const customer = $derived(found.value?.customer);
  const records = $derived(found.value?.records ?? []);
  const rows = $derived(found.value?.rows ?? []);
  const holder = $derived(cardHolder(rows));
</script>

<div class="page page-text gap-5">
  {#if id === 'new'}
    <h1>Add a customer</h1>
    <CustomerForm />
  {:else if customer === undefined}
    {#if found.isRead}
      <h1>Nobody of that name</h1>
      <p class="sheet">
        This device knows no such customer. <a class="plain" href="/customers">Customers</a>
      </p>
    {/if}
  {:else if customer.isErased}
    <h1>A customer who was forgotten</h1>
    <p class="sheet">
      Nothing is known of them any more. What they bought stays in the figures.
      <a class="plain" href="/customers">Customers</a>
    </p>
  {:else}
    <h1>{customer.name}</h1>
    {#if customer.id !== id}
      <p class="soft">That record was joined to this one.</p>
    {/if}
    <Account {customer} {records} />
    <CustomerPoints customer={customer.id} {records} />
    <CustomerInvoices customer={customer.id} />
    <CustomerCharges customer={customer.id} {records} />
    <CustomerOrders {records} />
    <Records {customer} {rows} />
    {#key `${customer.setStamp} ${customer.whoStamp}`}<CustomerForm {customer} />{/key}
    <Consent {customer} {rows} />
    {#if holder !== undefined}<CardOnFile customer={holder} />{/if}
    <Forget {customer} {rows} />
  {/if}
</div>

<!-- Whose credit it becomes: found by name, company or telephone. -->
<script lang="ts">
  import { findCustomers } from '$lib/core/customer/find-customers';
  import { live } from '$lib/device/live.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    /** The customer's id; empty until one is chosen. */
    customer: string;
  }
  let { customer = $bindable() }: Props = $props();
  const { db } = useStall();
  const AT_MOST = 6;
  let typed = $state('');
  const all = live(() => () => db.books.customers.toArray(), []);
  const chosen = $derived(all.value.find(({ id }) => id === customer));
  const found = $derived(typed.trim() === '' ? [] : findCustomers(typed, all.value));
</script>

{#if chosen !== undefined}
  <p class="flex flex-wrap items-center justify-between gap-2">
    <b>{chosen.name}</b>
    <button type="button" class="btn btn-quiet" onclick={() => (customer = '')}
      >Somebody else</button
    >
  </p>
{:else}
  <Field label="Customer" bind:value={typed} maxlength={80} autocomplete="off" />
  <div class="flex flex-wrap gap-2" role="group" aria-label="Customers who fit">
    {#each found.slice(0, AT_MOST) as { id, name, company } (id)}
      <button
        type="button"
        class="btn btn-quiet"
        onclick={() => {
          customer = id;
          typed = '';
        }}>{name}{company === '' ? '' : `, ${company}`}</button
      >
    {/each}
    {#if typed.trim() !== '' && found.length === 0}
      <a class="plain" href="/customers/new">Nobody of that name; add them</a>
    {/if}
  </div>
{/if}

<script lang="ts">
  import { findCustomers } from '$lib/core/customer/find-customers';
  import { Joined, mayKeep } from '$lib/core/customer/joined';
  import { live } from '$lib/device/live.svelte';
  import { useStall } from '../stall.svelte';
  import CustomersAsFile from './CustomersAsFile.svelte';

  const { db } = useStall();
  const AT_MOST = 100;
  let typed = $state('');
  const all = live(() => () => db.books.customers.toArray(), []);
  const joined = $derived(new Joined(all.value));
  const found = $derived(findCustomers(typed, all.value, joined));
  const byId = $derived(new Map(all.value.map((each) => [each.id, each])));
  const mayKeepThem = (id: string): boolean =>
    mayKeep(joined.records(id).flatMap((record) => byId.get(record) ?? []));
</script>

<div class="page page-text gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Customers</h1>
    <a class="btn btn-main px-6" href="/customers/new">Add a customer</a>
  </div>
  <label class="grid gap-1 font-[560]">
    Name, company, e-mail or phone
    <input class="input w-full text-lg" bind:value={typed} autocomplete="off" />
  </label>
  <ul class="sheet grid gap-1" data-testid="customers">
    {#each found.slice(0, AT_MOST) as { id, name, company, phone } (id)}
      <li>
        <a
          class="hover:bg-base-200 flex min-h-14 flex-wrap items-center justify-between gap-2 rounded-lg px-3"
          href="/customers/{id}"
        >
          <span><b class="text-lg">{name}</b>{company === '' ? '' : `, ${company}`}</span>
          <span class="soft"
            >{[phone, mayKeepThem(id) ? '' : 'has not agreed to be kept']
              .filter((part) => part !== '')
              .join(' · ')}</span
          >
        </a>
      </li>
    {:else}
      {#if all.isRead}
        <li class="soft p-3">
          {typed.trim() === ''
            ? 'Nobody yet. Add a customer who is to have a discount, an order or a bill.'
            : `Nobody fits “${typed}”.`}
        </li>
      {/if}
    {/each}
  </ul>
  {#if found.length > AT_MOST}
    <p class="soft">{found.length - AT_MOST} more; type a little more of the name.</p>
  {/if}
  <CustomersAsFile customers={all.value} />
</div>

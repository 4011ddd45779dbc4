<script lang="ts">
  import { findCustomers } from '$lib/core/customer/find-customers';
  import { customerHolds } from '$lib/device/held-accounts';
  import { live } from '$lib/device/live.svelte';
  import { holdsWords } from '$lib/ui/words/held-words';
  import { refusalWords } from '$lib/ui/words/refusal-words';
  import { useStall } from '../stall.svelte';
  import CustomersOpen from './CustomersOpen.svelte';

  const stall = useStall();
  const { slip, db } = stall;
  const open = $derived(slip.current);
  const AT_MOST = 6;
  let who = $state('');
  let wrong = $state('');
  const customers = live(() => {
    const wanted = who.trim() !== '';
    return () => (wanted ? db.books.customers.toArray() : []);
  }, []);
  const holds = live(() => {
    const { customer } = open;
    return () => (customer === undefined ? undefined : customerHolds(db, customer));
  }, undefined);
  const found = $derived(who.trim() === '' ? [] : findCustomers(who, customers.value));

  function choose(customer: typeof open.customer): void {
    const refusal = slip.say({ customer });
    wrong = refusal === null ? '' : refusalWords(refusal, stall.money);
    if (refusal === null) who = '';
  }
</script>

<section class="grid gap-2" aria-label="Customer">
  {#if open.customer !== undefined}
    <p class="flex flex-wrap items-center justify-between gap-2">
      <span
        ><b>{open.customer.name}</b>{open.customer.discount === '0'
          ? ''
          : `, ${open.customer.discount} % off`}{holds.value === undefined ||
        holdsWords(holds.value, stall.money) === ''
          ? ''
          : ` · ${holdsWords(holds.value, stall.money)}`}</span
      >
      <button type="button" class="btn btn-quiet" onclick={() => choose(undefined)}
        >Remove the customer</button
      >
    </p>
    <CustomersOpen customer={open.customer.id} />
  {:else}
    <label class="grid gap-1 font-[560]">
      Customer
      <input
        class="input w-full"
        bind:value={who}
        placeholder="Name, company or phone"
        autocomplete="off"
      />
    </label>
    <ul class="grid" data-testid="found-customers">
      {#each found.slice(0, AT_MOST) as each (each.id)}
        <li>
          <button
            type="button"
            class="hover:bg-base-200 flex min-h-12 w-full justify-between gap-3 rounded-lg px-3 text-left"
            onclick={() => choose({ id: each.id, name: each.name, discount: each.discount })}
          >
            <b>{each.name}</b><span class="soft">{each.company || each.phone}</span>
          </button>
        </li>
      {/each}
    </ul>
    {#if who.trim() !== '' && found.length === 0}
      <a class="plain" href="/customers/new">Nobody of that name; add them</a>
    {/if}
  {/if}
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
</section>

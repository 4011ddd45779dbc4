<script lang="ts">
  import { buyersOf } from '$lib/core/sale/corrections';
  import { goto } from '$app/navigation';
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { vcardsOf } from '$lib/core/formats/vcard';
  import { customerFile } from '$lib/core/customer/export-customer';
  import { eraseCustomer } from '$lib/core/customer/set-customer';
  import { customerHolds } from '$lib/device/held-accounts';
  import { joinedMoves, olderMoves, ownMoves } from '$lib/device/held-statement';
  import { invoicesHere } from '$lib/device/invoices';
  import { live } from '$lib/device/live.svelte';
  import { chargesHere } from '$lib/device/charges';
  import { newId } from '$lib/device/new-id';
  import { saveFile } from '$lib/ui/files/save-file';
  import { holdsWords } from '$lib/ui/words/held-words';
  import RightButton from '../../RightButton.svelte';
  import { useStall } from '../../stall.svelte';
  import { stillHere } from '../../still-here';

  interface Props {
    customer: Row<'customers'>;
    /** All of theirs, the one they go by first. */
    rows: readonly Row<'customers'>[];
  }
  const { customer, rows }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  let isAsking = $state(false);
  const holds = live(() => {
    const who = customer;
    return () => customerHolds(db, who);
  }, undefined);
  const still = $derived(holds.value === undefined ? '' : holdsWords(holds.value, stall.money));

  async function hand(): Promise<void> {
    const ids = rows.map(({ id }) => id);
    const theirs = new Set(ids);
    const { books } = db;
    const consents = await books.consents.where('customer').anyOf(ids).toArray();
    const buyerOf = buyersOf(await books.corrections.toArray());
    const sales = await books.sales.filter((sale) => theirs.has(buyerOf(sale) ?? '')).toArray();
    const payers = await books.payers.where('customer').anyOf(ids).toArray();
    const { id } = customer;
    const accounts = [`customer:${id}`, `credit:${id}`, `points:${id}`] as const;
    const { moves } = await ownMoves(db, accounts);
    const older = (await olderMoves(stall.transport, accounts)) ?? [];
    const orders = await books.orders.where('customer').anyOf(ids).toArray();
    const all = joinedMoves(moves, older);
    const { invoices, numbers } = await invoicesHere(db, id);
    const charges = await chargesHere(db, ids);
    const file = customerFile(
      rows,
      consents,
      sales,
      payers,
      all,
      orders,
      invoices,
      numbers,
      charges,
    );
    saveFile('customer.json', 'application/json', JSON.stringify(file, null, 2));
  }

  async function forget(lentBy?: string): Promise<void> {
    const isHere = stillHere();
    const ids = rows.map((row) => row.id);
    await stall.daybook.append(
      () => eraseCustomer(newId, ids),
      lentBy === undefined ? {} : { lentBy },
    );
    await stall.daybook.settle();
    toast('Forgotten. Other devices forget when they next sync.');
    if (isHere()) await goto('/customers');
  }
</script>

<section class="sheet grid gap-3" aria-labelledby="data">
  <h2 id="data">Their data</h2>
  <div class="flex flex-wrap gap-2">
    <button type="button" class="btn btn-quiet" onclick={hand}>Save all of it as a file</button>
    <button
      type="button"
      class="btn btn-quiet"
      onclick={() => saveFile(`${customer.name}.vcf`, 'text/vcard', vcardsOf([customer]))}
      >Save as a vCard</button
    >
    {#if !isAsking}
      <button type="button" class="btn btn-quiet" onclick={() => (isAsking = true)}
        >Forget them …</button
      >
    {/if}
  </div>
  {#if isAsking}
    <div class="bg-base-200 grid gap-3 rounded-lg p-3" role="group" aria-label="Forget them?">
      <p>
        Name, addresses, numbers and notes go from every device and from the server, for good. What
        they bought stays in the figures, without saying who it was. This cannot be undone.
      </p>
      {#if still !== ''}
        <p class="text-error">
          {customer.name}
          {still}: nobody can be asked for it, or given it, afterwards.
        </p>
      {/if}
      <RightButton
        right="set-up"
        label="Forget {customer.name}"
        look="btn-quiet !border-error text-error"
        onGo={forget}
      />
      <button
        type="button"
        class="btn btn-quiet justify-self-start"
        onclick={() => (isAsking = false)}>Cancel</button
      >
    </div>
  {/if}
</section>

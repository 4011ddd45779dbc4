<script lang="ts">
  import { goto } from '$app/navigation';
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { vcardsOf } from '$lib/core/formats/vcard';
  import { eraseCustomer } from '$lib/core/customer/set-customer';
  import { makeCustomerFile } from '$lib/device/customer-file';
  import { customerHolds } from '$lib/device/held-accounts';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { saveFile } from '$lib/ui/files/save-file';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { FILE_IN_PART } from '$lib/ui/words/customer-words';
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
  let isMaking = $state(false);
  /** What is missing of the file that was saved. */
  let missing = $state('');
  const holds = live(() => {
    const who = customer;
    return () => customerHolds(db, who);
  }, undefined);
  const still = $derived(holds.value === undefined ? '' : holdsWords(holds.value, stall.money));

  async function hand(): Promise<void> {
    const isHere = stillHere();
    missing = '';
    isMaking = true;
    try {
      const { file, away } = await makeCustomerFile(db, stall.transport, customer.id, rows);
      saveFile('customer.json', 'application/json', JSON.stringify(file, null, 2));
      if (away !== null && isHere()) missing = `${wrongOf(away, 'No network.')} ${FILE_IN_PART}`;
    } finally {
      isMaking = false;
    }
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
    <button type="button" class="btn btn-quiet" disabled={isMaking} onclick={hand}
      >{isMaking ? 'Asking the server …' : 'Save all of it as a file'}</button
    >
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
  {#if missing !== ''}<p class="text-error" role="alert">{missing}</p>{/if}
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

<!-- Customers out to a table or to vCards, and in again. -->
<script lang="ts">
  import { people } from '$lib/core/customer/joined';
  import type { Row } from '$lib/core/books/tables';
  import {
    CUSTOMER_COLUMNS,
    customerLines,
    readCustomers,
  } from '$lib/core/formats/customers-table';
  import type { Planned } from '$lib/core/formats/goods-table';
  import { customersFromVcards, vcardsOf } from '$lib/core/formats/vcard';
  import { readCsv } from '$lib/device/csv';
  import { newId, newSalt } from '$lib/device/new-id';
  import { saveCsv } from '$lib/ui/files/save-csv';
  import { saveFile } from '$lib/ui/files/save-file';
  import TakeFileIn from '../forms/TakeFileIn.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    customers: readonly Row<'customers'>[];
  }
  const { customers }: Props = $props();
  const stall = useStall();
  const { currency, locale } = $derived(stall.business);
  const there = $derived(
    people(customers).filter(({ whoStamp, isErased }) => whoStamp !== '' && !isErased),
  );

  async function read(text: string): Promise<readonly Planned[] | string> {
    const isCard = /^\uFEFF?\s*BEGIN:VCARD/i.test(text);
    const csv = isCard ? null : readCsv(text, ['name']);
    if (csv !== null && csv.fault !== '') return csv.fault;
    const lines = csv === null ? customersFromVcards(text) : csv.lines;
    if (typeof lines === 'string') return lines;
    const now = await stall.db.books.customers.toArray();
    return readCustomers({ newId, newSalt, lines, customers: now, currency, locale });
  }
</script>

<details class="sheet">
  <summary class="min-h-12 cursor-pointer content-center text-lg font-[600]">As a file</summary>
  <div class="grid gap-3 pt-2">
    <p class="soft">
      CSV with {CUSTOMER_COLUMNS.join(', ')}; or vCards. Whoever is known by id, mail, telephone or
      name is changed, not noted down twice.
    </p>
    <div class="flex flex-wrap gap-2">
      <button
        type="button"
        class="btn btn-quiet"
        onclick={() => saveCsv('Customers', customerLines(there, currency), CUSTOMER_COLUMNS)}
        >Save as a table</button
      >
      <button
        type="button"
        class="btn btn-quiet"
        onclick={() => saveFile('Customers.vcf', 'text/vcard', vcardsOf(there))}
        >Save as vCards</button
      >
    </div>
    <TakeFileIn
      label="A file of customers"
      accept=".csv,.vcf,text/csv,text/vcard"
      right="set-up"
      {read}
      things={['customer', 'customers']}
    />
  </div>
</details>

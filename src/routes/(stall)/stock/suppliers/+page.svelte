<script lang="ts">
  import {
    readSupplies,
    SUPPLY_COLUMNS,
    supplyLines,
    type Planned,
  } from '$lib/core/formats/goods-table';
  import { readCsv } from '$lib/device/csv';
  import { newId } from '$lib/device/new-id';
  import { saveCsv } from '$lib/ui/files/save-csv';
  import TakeFileIn from '../../forms/TakeFileIn.svelte';
  import { useStall } from '../../stall.svelte';
  import { Goods } from '../goods.svelte';
  import { counted } from '$lib/ui/words/money-words';

  const stall = useStall();
  const goods = new Goods(stall);
  function save(): void {
    const { currency } = stall.business;
    const rows = supplyLines(goods.stocked, goods.supplies, goods.suppliers, currency);
    saveCsv('suppliers', rows, SUPPLY_COLUMNS);
  }
  function readFile(text: string): Promise<readonly Planned[] | string> {
    const { lines, fault } = readCsv(text, ['supplier']);
    return Promise.resolve(
      fault !== ''
        ? fault
        : readSupplies({
            newId,
            lines,
            items: goods.items.values(),
            suppliers: goods.suppliers,
            supplies: goods.supplies,
            currency: stall.business.currency,
          }),
    );
  }
  const active = $derived(goods.suppliers.filter(({ isActive }) => isActive));
  const sells = (supplier: string): number =>
    [...goods.supplies.values()].filter(({ suppliers }) =>
      suppliers.some((each) => each.supplier === supplier),
    ).length;
</script>

<div class="page page-text gap-5">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h1>Suppliers</h1>
    <a class="btn btn-main px-6" href="/stock/suppliers/new">Add a supplier</a>
  </div>
  {#if active.length > 0}
    <ul class="sheet grid gap-1" data-testid="suppliers">
      {#each active as supplier (supplier.id)}
        <li>
          <a
            class="hover:bg-base-200 grid min-h-14 content-center rounded-lg px-3"
            href="/stock/suppliers/{supplier.id}"
          >
            <b class="font-[600]">{supplier.name}</b>
            <span class="soft text-sm"
              >{[
                supplier.email,
                supplier.phone,
                supplier.days === 0 ? '' : `${counted(supplier.days, 'day')} to deliver`,
                counted(sells(supplier.id), 'item'),
              ]
                .filter((part) => part !== '')
                .join(' · ')}</span
            >
          </a>
        </li>
      {/each}
    </ul>
    <section class="sheet grid gap-3" aria-labelledby="as-file">
      <h2 id="as-file">What they sell, as a file</h2>
      <p class="soft">
        A CSV file with a line for each item and supplier: their code, how many come at once, the
        price of one, who is preferred.
      </p>
      <button type="button" class="btn btn-quiet justify-self-start" onclick={save}
        >Save it as a file</button
      >
      <TakeFileIn
        label="Take it in from a file"
        accept=".csv,text/csv"
        right="set-up"
        read={readFile}
        things={['line is', 'lines are']}
      />
    </section>
  {:else if goods.isRead}
    <p class="sheet soft">
      Nobody yet. Whom you buy from stands here, and on each item what they call it and how many
      come at once.
    </p>
  {/if}
</div>

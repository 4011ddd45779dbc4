<script lang="ts">
  /** What the columns of a bank's CSV are: guessed, looked at, changed. */
  import {
    DAY_ORDERS,
    ordersOf,
    type BankColumns,
    type BankTable,
    type DayOrder,
  } from '$lib/core/formats/bank-table';
  import { ORDER_CHOICES } from '$lib/ui/words/bank-words';

  interface Props {
    table: BankTable;
    columns: BankColumns;
    onChange: (next: BankColumns) => void;
  }
  const { table, columns, onChange }: Props = $props();
  const isTwo = $derived(columns.amount === '');
  const days = $derived.by(() => {
    const at = table.headings.indexOf(columns.day);
    return at === -1 ? [] : table.rows.flatMap(({ cells }) => cells[at] ?? []);
  });
  const orders = $derived(ordersOf(days));
  const isUnsure = $derived(orders.length > 1 && orders.includes('dmy') && orders.includes('mdy'));
  const fields = $derived([
    { at: 'day', label: 'Day', needed: true },
    ...(isTwo
      ? ([
          { at: 'came', label: 'What came', needed: true },
          { at: 'went', label: 'What went', needed: true },
        ] as const)
      : ([{ at: 'amount', label: 'Amount, with its sign', needed: true }] as const)),
    { at: 'other', label: 'Who', needed: false },
    { at: 'reference', label: 'Reference', needed: false },
    { at: 'text', label: 'Words', needed: false },
    { at: 'balance', label: 'Balance after it', needed: false },
  ] as const);
</script>

<fieldset class="grid gap-2" data-testid="bank-columns">
  <legend class="font-[560]">Its columns</legend>
  <div class="grid gap-2 sm:grid-cols-2">
    {#each fields as field (field.at)}
      <label class="grid gap-1 text-sm font-[560]">
        {field.label}
        <select
          class="select min-h-12 w-full"
          value={columns[field.at]}
          onchange={(event) => onChange({ ...columns, [field.at]: event.currentTarget.value })}
        >
          <option value="">{field.needed ? 'choose' : 'none'}</option>
          {#each table.headings as heading (heading)}<option value={heading}>{heading}</option
            >{/each}
        </select>
      </label>
    {/each}
    <label class="grid gap-1 text-sm font-[560]">
      Amounts
      <select
        class="select min-h-12 w-full"
        value={isTwo ? 'two' : 'one'}
        onchange={(event) =>
          onChange(
            event.currentTarget.value === 'two'
              ? { ...columns, amount: '' }
              : { ...columns, amount: columns.came, came: '', went: '' },
          )}
      >
        <option value="one">one, with signs</option>
        <option value="two">two: came, went</option>
      </select>
    </label>
    <label class="grid gap-1 text-sm font-[560]">
      Decimal mark
      <select
        class="select min-h-12 w-full"
        value={columns.mark}
        onchange={(event) =>
          onChange({ ...columns, mark: event.currentTarget.value === ',' ? ',' : '.' })}
      >
        <option value=".">a point: 1,234.50</option>
        <option value=",">a comma: 1.234,50</option>
      </select>
    </label>
    <label class="grid gap-1 text-sm font-[560] sm:col-span-2">
      Order of a day
      <select
        class="select min-h-12 w-full"
        value={columns.order}
        onchange={(event) => onChange({ ...columns, order: event.currentTarget.value as DayOrder })}
      >
        {#each DAY_ORDERS as order (order)}
          <option value={order}>{ORDER_CHOICES[order]}</option>
        {/each}
      </select>
    </label>
  </div>
  {#if isUnsure}
    <p class="text-error text-sm" role="status">
      “{days[0]}” could be either: every day of this file reads both ways. Look which order it is.
    </p>
  {/if}
</fieldset>

<script lang="ts">
  import type { TypedItem } from '$lib/core/goods/set-item';
  import { combinations } from '$lib/core/goods/variants';

  interface Props {
    choices: TypedItem['choices'];
    variants: TypedItem['variants'];
    /** Of the item; a cell without a price has this one. */
    price: string;
  }
  let { choices = $bindable(), variants = $bindable(), price }: Props = $props();
  const MOST = 200;
  const read = $derived(
    choices
      .map(({ name, values }) => ({
        name,
        values: [...new Set(values.split(',').map((each) => each.trim()))].filter(
          (each) => each !== '',
        ),
      }))
      .filter(({ values }) => values.length > 0),
  );
  const cells = $derived(read.length === 0 ? [] : combinations(read).slice(0, MOST));
  const EMPTY = { code: '', barcodes: '', price: '', isSold: true };
  const isSame = (a: readonly string[], b: readonly string[]): boolean =>
    a.length === b.length && a.every((value, at) => value === b[at]);
  const cellOf = (values: readonly string[]) =>
    variants.find((each) => isSame(each.values, values)) ?? { ...EMPTY, values };
  function change(values: readonly string[], said: Partial<typeof EMPTY>): void {
    const next = { ...cellOf(values), ...said };
    const at = variants.findIndex((each) => isSame(each.values, values));
    variants =
      at === -1 ? [...variants, next] : variants.map((each, i) => (i === at ? next : each));
  }
</script>

<section class="sheet grid grid-cols-[minmax(0,1fr)] gap-3" aria-labelledby="variants">
  <h2 id="variants">Variants</h2>
  <p class="soft">
    One item in several sizes or colours. Each has its own code, price and stock; without a price it
    has the item’s.
  </p>
  {#each choices as choice, at (at)}
    <div class="flex flex-wrap items-end gap-2">
      <label class="grid w-36 gap-1 font-[560]">
        Choice
        <input
          class="input w-full"
          placeholder="Size"
          maxlength="80"
          value={choice.name}
          oninput={(event) => {
            const name = event.currentTarget.value;
            choices = choices.map((each, i) => (i === at ? { ...each, name } : each));
          }}
        />
      </label>
      <label class="grid min-w-0 flex-[1_1_9rem] gap-1 font-[560]">
        Values, apart by commas
        <input
          class="input w-full"
          placeholder="9 cm, 1 l, 2 l"
          value={choice.values}
          oninput={(event) => {
            const values = event.currentTarget.value;
            choices = choices.map((each, i) => (i === at ? { ...each, values } : each));
          }}
        />
      </label>
      <button
        type="button"
        class="btn btn-quiet"
        aria-label={`Remove the choice ${choice.name}`}
        onclick={() => (choices = choices.filter((_, i) => i !== at))}>Remove</button
      >
    </div>
  {/each}
  {#if choices.length < 4}
    <button
      type="button"
      class="btn btn-quiet justify-self-start"
      onclick={() => (choices = [...choices, { name: '', values: '' }])}>Add a choice</button
    >
  {/if}
  {#if cells.length > 0}
    <div class="overflow-x-auto">
      <table class="w-full" data-testid="matrix">
        <thead class="soft text-left text-sm">
          <tr><th>Sold</th><th>Which</th><th>Code</th><th>Barcodes</th><th>Price</th></tr>
        </thead>
        <tbody>
          {#each cells as values (values.join('\n'))}
            {@const cell = cellOf(values)}
            {@const called = values.join(', ')}
            <tr>
              <td
                ><label class="grid size-12 place-items-center"
                  ><input
                    type="checkbox"
                    class="checkbox size-6 !rounded-md"
                    aria-label={`${called} is sold`}
                    checked={cell.isSold}
                    onchange={(event) => change(values, { isSold: event.currentTarget.checked })}
                  /></label
                ></td
              >
              <td class="min-w-32 py-1 pr-2">{called}</td>
              {#each ['code', 'barcodes', 'price'] as const as field (field)}
                <td class="py-1 pr-2"
                  ><input
                    class="input w-28"
                    aria-label={`${field} of ${called}`}
                    placeholder={field === 'price' ? price : ''}
                    value={cell[field]}
                    disabled={!cell.isSold}
                    onchange={(event) => change(values, { [field]: event.currentTarget.value })}
                  /></td
                >
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
</section>

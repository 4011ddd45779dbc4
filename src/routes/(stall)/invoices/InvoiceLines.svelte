<!-- Lines that are written by hand: what, how many, for how much each, and the taxes they carry. -->
<script lang="ts" module>
  import type { TypedLine } from '$lib/core/invoice/own-lines';

  /** One of which nothing is typed, with the taxes that most goods carry. */
  export const blankLine = (sets: readonly (readonly string[])[]): TypedLine => ({
    ...{ name: '', quantity: '1', price: '' },
    taxes: sets[0] ?? [],
  });
</script>

<script lang="ts">
  import type { SlipTax } from '$lib/core/pricing/slip';
  import { taxName } from '$lib/core/pricing/tax-name';
  import Field from '$lib/ui/forms/Field.svelte';

  interface Props {
    lines: TypedLine[];
    inForce: readonly SlipTax[];
    /** Which taxes a line may carry together. */
    sets: readonly (readonly string[])[];
    pricesIncludeTax: boolean;
  }
  let { lines = $bindable(), inForce, sets, pricesIncludeTax }: Props = $props();
  const taxSetWords = (set: readonly string[]): string =>
    inForce
      .filter(({ id }) => set.includes(id))
      .map(({ name, rate }) => taxName(name, rate))
      .join(' + ') || 'none';
</script>

{#each lines as line, at (at)}
  <fieldset
    class="border-base-300 grid grid-cols-[5rem_minmax(0,1fr)] items-start gap-3 border-b border-dashed pb-3 sm:grid-cols-[minmax(0,1fr)_5rem_7rem_9rem]"
    aria-label={`Line ${String(at + 1)}`}
  >
    <div class="max-sm:col-span-2">
      <Field
        label="What"
        bind:value={line.name}
        at={`lines.${String(at)}.name`}
        maxlength={200}
        autocomplete="off"
      />
    </div>
    <Field
      label="Many"
      bind:value={line.quantity}
      at={`lines.${String(at)}.quantity`}
      inputmode="decimal"
    />
    <Field
      label={pricesIncludeTax ? 'Each, tax in it' : 'Each'}
      bind:value={line.price}
      at={`lines.${String(at)}.price`}
      inputmode="decimal"
      autocomplete="off"
    />
    {#if inForce.length > 0}
      <label class="grid gap-1 font-[560] max-sm:col-span-2">
        Tax
        <select
          class="select min-h-12 w-full"
          bind:value={
            () => line.taxes.join(' '),
            (ids) => (lines[at] = { ...line, taxes: ids === '' ? [] : ids.split(' ') })
          }
        >
          {#each sets as set (set.join(' '))}
            <option value={set.join(' ')}>{taxSetWords(set)}</option>
          {/each}
        </select>
      </label>
    {/if}
  </fieldset>
{/each}
<div class="flex flex-wrap gap-2">
  <button
    type="button"
    class="btn btn-quiet"
    onclick={() => lines.push(blankLine(sets))}
    disabled={lines.length >= 50}>Another line</button
  >
  {#if lines.length > 1}
    <button type="button" class="btn btn-quiet" onclick={() => lines.pop()}
      >Take the last one off</button
    >
  {/if}
</div>

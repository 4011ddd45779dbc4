<!-- Lines without tax, what they have of each tax, and what it all comes to. -->
<script lang="ts">
  import type { InvoiceFigures } from '$lib/core/invoice/invoice-figures';
  import { taxName } from '$lib/core/pricing/tax-name';
  import { sum } from '$lib/core/money/units';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { useStall } from '../stall.svelte';

  interface Props {
    figures: InvoiceFigures;
    /** What of it was paid already; minor units. */
    paid: number;
    /** What is said of the last figure. */
    says?: string;
  }
  const { figures, paid, says = 'To pay' }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
</script>

<table class="rows" data-testid="invoice-lines">
  <thead
    ><tr
      ><th scope="col">What</th><th scope="col" class="text-right">Many</th><th
        scope="col"
        class="text-right">Without tax</th
      ></tr
    ></thead
  >
  <tbody>
    {#each figures.lines as line, at (at)}
      <tr>
        <td>{line.name}{line.detail === '' ? '' : `, ${line.detail}`}</td>
        <td class="figure text-right"
          >{line.quantity === 0 ? '' : quantityWords(line.quantity, line.unit)}</td
        >
        <td class="figure text-right">{money.figure(line.net)}</td>
      </tr>
    {/each}
  </tbody>
</table>
<dl
  class="grid grid-cols-[minmax(0,1fr)_auto] justify-items-end gap-x-4 gap-y-1"
  data-testid="invoice-sums"
>
  <dt class="soft">Without tax</dt>
  <dd class="figure">{money.figure(sum(figures.lines.map(({ net }) => net)))}</dd>
  {#each figures.taxes as tax (tax.id)}
    <dt class="soft">{taxName(tax.name, tax.rate)} of {money.text(tax.base)}</dt>
    <dd class="figure">{money.figure(tax.amount)}</dd>
  {/each}
  <dt>In all</dt>
  <dd class="figure">{money.figure(figures.total)}</dd>
  {#if paid > 0}
    <dt class="soft">Paid already</dt>
    <dd class="figure">{money.figure(paid)}</dd>
  {/if}
  <dt><b>{says}</b></dt>
  <dd class="amount text-2xl">{money.text(figures.total - paid)}</dd>
</dl>

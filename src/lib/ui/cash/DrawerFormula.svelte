<script lang="ts">
  /** What should be in a drawer, and what of: its formula, a line for each part that there is. */
  import type { Row } from '../../core/books/tables';
  import { expectedCash } from '../../core/drawer/expected-cash';
  import type { MoneyWords } from '../words/money-words';

  interface Props {
    money: MoneyWords;
    drawer: Row<'drawers'>;
    sums: Row<'drawerSums'> | undefined;
  }
  const { money, drawer, sums }: Props = $props();
  const parts = $derived(
    [
      { what: 'Float', amount: drawer.float },
      { what: 'Handed over', amount: sums?.handed ?? 0 },
      { what: 'Change given', amount: -(sums?.change ?? 0) },
      { what: 'Given back', amount: -(sums?.back ?? 0) },
      { what: 'Paid in, more float', amount: sums?.movedIn ?? 0 },
      { what: 'Paid out, to the safe, bagged', amount: -(sums?.movedOut ?? 0) },
    ].filter(({ what, amount }) => amount !== 0 || what === 'Float'),
  );
</script>

<table class="rows" data-testid="drawer-formula">
  <tbody>
    {#each parts as { what, amount } (what)}
      <tr><td>{what}</td><td class="figure">{money.figure(amount)}</td></tr>
    {/each}
    <tr
      ><td class="font-[650]">Should be in it</td><td
        class="figure font-[650]"
        data-testid="should-be">{money.figure(expectedCash(drawer, sums))}</td
      ></tr
    >
  </tbody>
</table>

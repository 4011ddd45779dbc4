<script lang="ts">
  /** What the event left. */
  import type { EventResult } from '$lib/core/settle/result';
  import type { SettleNames } from '$lib/ui/words/settle-words';
  import { useStall } from '../../../stall.svelte';
  import { counted } from '$lib/ui/words/money-words';

  interface Props {
    result: EventResult;
    names: SettleNames;
  }
  const { result, names }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const lines = $derived(
    [
      { what: 'Takings without tax', amount: result.net },
      { what: 'Goods that were sold', amount: -result.goods },
      { what: 'Card fees', amount: -result.cardFees },
      { what: 'Pitch', amount: -result.pitch },
      { what: 'Makers', amount: -result.makers },
      ...result.costs.map(({ what, amount, is, person }) => ({
        what:
          person !== undefined
            ? `${what === 'wages' ? 'Wages' : 'Commission'} of ${names.person(person)}`
            : is === 'agreed'
              ? `${what}, as agreed`
              : what,
        amount: -amount,
      })),
    ].filter(({ what, amount }) => amount !== 0 || what === 'Takings without tax'),
  );
</script>

<section class="sheet grid gap-3" aria-labelledby="result">
  <h2 id="result">Result</h2>
  <table class="rows" data-testid="result">
    <tbody>
      {#each lines as { what, amount }, at (at)}
        <tr><td>{what}</td><td class="figure">{money.figure(amount)}</td></tr>
      {/each}
      <tr
        ><td class="font-[650]">Left of it</td><td
          class={['figure font-[650]', result.left < 0 && 'text-error']}
          data-testid="left-of-it">{money.figure(result.left)}</td
        ></tr
      >
    </tbody>
  </table>
  <ul class="soft grid gap-1 text-sm">
    {#if result.perHour !== null}
      <li>
        {money.text(result.perHour)} for each of {counted(
          Math.round(result.minutes / 6) / 10,
          'hour',
        )} of trading.
      </li>
    {/if}
    {#if result.sellThrough !== null}
      <li>{result.sellThrough / 10} % of what was taken there was sold.</li>
    {/if}
    {#if result.breakEven !== null}
      <li>Takings of {money.text(result.breakEven)} would have paid for the day.</li>
    {/if}
  </ul>
</section>

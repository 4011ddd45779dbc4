<!-- All that moved on an account that is kept for somebody: what is left after each, and the sale that it was. -->
<script lang="ts">
  import type { StatedAccount } from '$lib/core/held/held-account';
  import { localTime } from '$lib/core/event/local-time';
  import { statementOf } from '$lib/core/held/statement';
  import { asked } from '$lib/device/asked.svelte';
  import {
    joinedMoves,
    NONE_OLDER,
    olderMoves,
    ownMoves,
    type OlderMoves,
  } from '$lib/device/held-statement';
  import { live } from '$lib/device/live.svelte';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { moveWords, WHAT_IS_HERE } from '$lib/ui/words/held-words';
  import MoveDocument from './MoveDocument.svelte';
  import { useStall } from './stall.svelte';

  interface Props {
    account: StatedAccount;
    testid: string;
    /** How amounts are written; in money, unless they are something else. */
    figure?: (amount: number) => string;
  }
  const { account, testid, figure = (amount) => money.figure(amount) }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const { timeZone, locale } = $derived(stall.business);
  const dayOf = (at: string): string => localTime(Date.parse(at), timeZone).day;
  const own = live(() => {
    const wanted = account;
    return () => ownMoves(db, [wanted]);
  }, undefined);
  const older = asked<OlderMoves>(() => {
    const of = account;
    return { of, ask: () => olderMoves(stall.transport, [of]) };
  }, NONE_OLDER);
  const statement = $derived(
    own.value === undefined
      ? undefined
      : statementOf(
          joinedMoves(own.value.moves, older.value.moves),
          own.value.balances[0] ?? 0,
          '',
          '',
          dayOf,
        ),
  );
</script>

{#if statement !== undefined && statement.lines.length > 0}
  <table class="rows" data-testid={testid}>
    <thead
      ><tr
        ><th scope="col">Day</th><th scope="col" class="!text-left">What</th><th
          scope="col"
          class="text-right">Amount</th
        ><th scope="col" class="text-right">Left</th></tr
      ></thead
    >
    <tbody>
      {#each statement.lines as line (line.id)}
        <tr>
          <td>{shortDayWords(dayOf(line.at), locale)}</td>
          <td class="!text-left">{moveWords(line)}<MoveDocument move={line} /></td>
          <td class="figure text-right">{figure(0 - line.amount)}</td>
          <td class="figure text-right">{figure(0 - line.balance)}</td>
        </tr>
      {/each}
    </tbody>
  </table>
{/if}
{#if older.value.away !== null}
  <p class="soft" role="status">{wrongOf(older.value.away, 'No network.', WHAT_IS_HERE)}</p>
{/if}

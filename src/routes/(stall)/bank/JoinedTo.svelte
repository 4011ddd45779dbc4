<script lang="ts">
  /** What a line was joined to, and taking them apart. */
  import type { BankLineNow } from '$lib/core/bank/bank-lines';
  import { takeApart } from '$lib/core/bank/join-bank';
  import { newId } from '$lib/device/new-id';
  import { bankRefusalWords } from '$lib/ui/words/bank-words';
  import RightButton from '../RightButton.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { useStall } from '../stall.svelte';
  import type { AskedBank } from './bank.svelte';

  interface Props {
    bank: AskedBank;
    line: BankLineNow;
    eventName: (id: string) => string;
  }
  const { bank, line, eventName }: Props = $props();
  const stall = useStall();
  const money = $derived(stall.money);
  const writtenOf = (id: string | null) => bank.now?.written.find((each) => each.id === id);
  let asking = $state<string | null>(null);
  let isTakenBack = $state(true);
  let wrong = $state('');

  const nameOf = (join: BankLineNow['joins'][number]): string => {
    if (join.money === null) return `None of ours: ${join.why}`;
    const of = writtenOf(join.money);
    if (of === undefined) return 'Money that came';
    const at = of.event === null ? '' : `, ${eventName(of.event)}`;
    return `${of.what === '' ? 'Money' : of.what}${at}`;
  };
  const keyOf = (id: string | null): string => String(id);

  function begin(id: string | null, saidAt: string): void {
    asking = keyOf(id);
    wrong = '';
    const at = writtenOf(id)?.at ?? '';
    // Written with the join, in one go: both go together.
    isTakenBack = id !== null && Math.abs(Date.parse(at) - Date.parse(saidAt)) < 2000;
  }

  async function apart(id: string | null, lentBy?: string): Promise<void> {
    const [of, isBack] = [writtenOf(id) ?? null, isTakenBack];
    wrong = await bank.write(
      () => takeApart(newId, line.id, id === null ? null : of, isBack),
      bankRefusalWords,
      lentBy,
    );
    if (wrong === '') asking = null;
  }
</script>

<ul class="grid gap-1 text-sm">
  {#each line.joins as join (keyOf(join.money))}
    <li class="grid gap-1">
      <span class="flex flex-wrap items-center justify-between gap-2">
        <span class="min-w-0 break-words"
          >{nameOf(join)}
          <span class="soft"
            >· {stall.nameOf(join.saidBy)}, {shortDayWords(
              join.saidAt.slice(0, 10),
              stall.business.locale,
            )}</span
          ></span
        >
        <span class="flex items-center gap-2">
          <span class="figure">{money.figure(join.amount)}</span>
          <button
            type="button"
            class="btn btn-quiet"
            aria-label="Undo {nameOf(join)}"
            onclick={() => begin(join.money, join.saidAt)}>Undo</button
          >
        </span>
      </span>
      {#if asking === keyOf(join.money)}
        {#if join.money !== null}
          <Tick
            label="It did not come at all: take the money back too"
            bind:checked={isTakenBack}
          />
        {/if}
        <span class="flex flex-wrap gap-2">
          <RightButton
            right="event.settle"
            label="Take them apart"
            look="btn-quiet"
            isBusy={bank.isOld}
            onGo={(lender) => apart(join.money, lender)}
          />
          <button type="button" class="btn btn-quiet" onclick={() => (asking = null)}
            >Leave it</button
          >
        </span>
      {/if}
    </li>
  {/each}
</ul>
{#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}

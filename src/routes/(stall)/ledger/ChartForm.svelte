<script lang="ts">
  /** Under which numbers and names the vendor's accountant has the accounts. */
  import { toast } from 'svelte-sonner';
  import { z } from 'zod';
  import { chartWith, DEFAULT_CHART, setChart } from '$lib/core/ledger/chart';
  import { moneyHeads, type MoneyHead } from '$lib/core/journal/accounts';
  import { newId } from '$lib/device/new-id';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import RightButton from '../RightButton.svelte';
  import { useStall } from '../stall.svelte';

  const stall = useStall();
  const answer = z.object({
    accounts: z.array(
      z.object({
        head: z.custom<MoneyHead>((value) => moneyHeads.some((head) => head === value)),
        number: z.string(),
        name: z.string(),
      }),
    ),
  });
  let typed = $state<{ head: MoneyHead; number: string; name: string }[] | null>(null);
  let wrong = $state('');
  let isBusy = $state(false);

  async function open(): Promise<void> {
    const asked = await stall.transport.ask('/api/ledger/chart', answer);
    if (asked.came !== 'answer') {
      wrong = wrongOf(asked, 'No network now; the accounts are on the server.');
      return;
    }
    wrong = '';
    const chart = chartWith(asked.answer.accounts);
    typed = moneyHeads
      .map((head) => ({ head, number: chart[head].number, name: chart[head].name }))
      .sort((a, b) => (DEFAULT_CHART[a.head].number < DEFAULT_CHART[b.head].number ? -1 : 1));
  }

  async function save(lentBy?: string): Promise<void> {
    const said = typed?.map((each) => ({ ...each })) ?? [];
    isBusy = true;
    const made = await stall.daybook.append(
      () => setChart(newId, said),
      lentBy === undefined ? {} : { lentBy },
    );
    await stall.daybook.settle();
    isBusy = false;
    if (made.ok) {
      typed = null;
      toast('The accounts are saved.');
      return;
    }
    wrong =
      made.refusal.code === 'slip/gone'
        ? ''
        : made.refusal.code === 'chart/no-name'
          ? `The account ${DEFAULT_CHART[made.refusal.head].name} needs a name.`
          : `The name “${made.refusal.name}” is there twice; each account has one of its own.`;
  }
</script>

<section class="sheet grid gap-3" aria-labelledby="chart">
  <h2 id="chart">Accounts</h2>
  {#if typed === null}
    <p class="soft">
      Numbers and names as your accountant has them. A way to pay can name an account of its own in
      its set-up.
    </p>
    <button type="button" class="btn btn-quiet justify-self-start" onclick={open}
      >Change the accounts …</button
    >
  {:else}
    <div class="grid gap-2">
      {#each typed as account (account.head)}
        <div
          class="grid grid-cols-[6rem_minmax(0,1fr)] items-center gap-2 sm:grid-cols-[8rem_6rem_minmax(0,1fr)]"
        >
          <span class="soft max-sm:col-span-2">{DEFAULT_CHART[account.head].kind}</span>
          <input
            class="input w-full"
            aria-label="Number of {DEFAULT_CHART[account.head].name}"
            maxlength={20}
            bind:value={account.number}
          />
          <input
            class="input w-full"
            aria-label="Name of {DEFAULT_CHART[account.head].name}"
            maxlength={60}
            bind:value={account.name}
          />
        </div>
      {/each}
    </div>
    <div class="flex flex-wrap gap-2">
      <RightButton right="set-up" label="Save the accounts" look="btn-quiet" {isBusy} onGo={save} />
      <button type="button" class="btn btn-quiet" onclick={() => (typed = null)}>Cancel</button>
    </div>
  {/if}
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
</section>

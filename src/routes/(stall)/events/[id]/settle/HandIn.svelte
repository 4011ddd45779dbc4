<script lang="ts">
  /** Cheques, tokens and the like of a way to pay: listed, counted, handed in under one paying-in slip. */
  import { handIn } from '$lib/core/settle/hand-in';
  import type { Settling } from '$lib/core/settle/settling';
  import { paidWith } from '$lib/core/payment/part-sums';
  import { partsAt } from '$lib/device/event-rows';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { settleEventWords } from '$lib/ui/words/settle-words';
  import { shortDayWords, timeWords } from '$lib/ui/words/date-words';
  import RightButton from '../../../RightButton.svelte';
  import { useStall } from '../../../stall.svelte';
  import { useSettling } from './settling.svelte';

  interface Props {
    event: string;
    way: string;
    /** What of it has not come, minor units. */
    open: number;
    settling: Pick<Settling, 'handedIn' | 'came'>;
  }
  const { event, way, open, settling }: Props = $props();
  const stall = useStall();
  const asked = useSettling();
  const money = $derived(stall.money);
  const parts = live(() => {
    const [at, by] = [event, way];
    return async () => {
      const paid = await partsAt(stall.db, at);
      const back = new Set(
        (await stall.db.books.reversals.where('event').equals(at).toArray()).map(
          ({ payment }) => payment,
        ),
      );
      return paid.filter((row) => row.way === by && !back.has(row.id));
    };
  }, []);
  const handed = $derived(settling.handedIn.filter((each) => each.way === way));
  const gone = $derived(
    new Set([
      ...handed.flatMap(({ payments }) => payments),
      ...settling.came.flatMap(({ payments }) => payments),
    ]),
  );
  const here = $derived(parts.value.filter(({ id }) => !gone.has(id)));
  let isOpen = $state(false);
  let chosen = $state<string[]>([]);
  let typed = $state('');
  let what = $state('');
  let day = $state('');
  let wrong = $state('');
  const sum = $derived(
    here.reduce((total, part) => total + (chosen.includes(part.id) ? paidWith(part) : 0), 0),
  );

  function begin(): void {
    chosen = here.map(({ id }) => id);
    typed = money.plain(here.reduce((total, part) => total + paidWith(part), 0) || open);
    day = stall.today;
    wrong = '';
    isOpen = true;
  }

  async function go(lentBy?: string): Promise<void> {
    const command = {
      ...{ newId, event, way, day, typed, what, payments: [...chosen] },
      currency: stall.business.currency,
    };
    wrong = await asked.write(() => handIn(command), settleEventWords, lentBy);
    if (wrong === '') isOpen = false;
  }
</script>

{#each handed as each (each.id)}
  <p class="text-sm" data-testid="handed-in">
    {money.text(each.amount)} handed in {shortDayWords(each.day, stall.business.locale)} by {stall.nameOf(
      each.by,
    )}, {each.what}{each.payments.length > 0 ? `, ${String(each.payments.length)} listed` : ''}.
  </p>
{/each}
{#if isOpen}
  {#if here.length > 0}
    <fieldset class="grid gap-1">
      <legend class="font-[560]">Which of them</legend>
      {#each here as part (part.id)}
        <label class="flex min-h-12 items-center gap-3">
          <input
            type="checkbox"
            class="checkbox size-6 !rounded-md"
            bind:group={chosen}
            value={part.id}
          />
          <span class="min-w-0 flex-1 break-words"
            >{part.reference === '' ? 'No reference' : part.reference}
            <span class="soft"
              >{timeWords(part.at, stall.business.locale, stall.business.timeZone)}</span
            ></span
          >
          <span class="figure">{money.figure(paidWith(part))}</span>
        </label>
      {/each}
      <p class="soft text-sm" data-testid="hand-in-sum">
        {chosen.length} chosen, {money.text(sum)}
      </p>
    </fieldset>
  {/if}
  <div class="grid items-start gap-3 sm:grid-cols-2">
    <Field label="Counted" bind:value={typed} inputmode="decimal" says={wrong} />
    <Field label="Paying-in slip, or who took them" bind:value={what} maxlength={60} />
    <label class="grid gap-1 font-[560]">
      On
      <input type="date" class="input w-full" bind:value={day} />
    </label>
  </div>
  <div class="flex flex-wrap gap-2">
    <RightButton right="event.settle" label="Handed in" look="btn-quiet" onGo={go} />
    <button type="button" class="btn btn-quiet" onclick={() => (isOpen = false)}>Not yet</button>
  </div>
{:else}
  <button type="button" class="btn btn-quiet justify-self-start" onclick={begin}
    >Hand them in …</button
  >
{/if}

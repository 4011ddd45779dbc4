<!-- A customer's points and rewards: what there is, what moved it, and giving or taking some without a sale. -->
<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { movePoints } from '$lib/core/points/set-points';
  import { ownMoves } from '$lib/device/held-statement';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { pointsOf } from '$lib/device/points';
  import Field from '$lib/ui/forms/Field.svelte';
  import {
    pointsFigure,
    pointsWords,
    rewardHeldWords,
    setPointsWords,
  } from '$lib/ui/words/points-words';
  import HeldMoves from '../../HeldMoves.svelte';
  import RightButton from '../../RightButton.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    customer: string;
    /** The ids of all their records. */
    records: readonly string[];
  }
  const { customer, records }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const held = live(() => {
    const all = records;
    return () => pointsOf(db, all);
  }, undefined);

  let typed = $state('');
  let reason = $state('');
  let wrong = $state('');

  async function move(lentBy?: string): Promise<void> {
    const account = `points:${customer}` as const;
    const said = { typed, reason };
    const made = await stall.daybook.decide(
      async () => 0 - ((await ownMoves(db, [account])).balances[0] ?? 0),
      (has) => movePoints({ newId, customer, ...said, has }),
      lentBy === undefined ? {} : { lentBy },
    );
    wrong = made.ok ? '' : setPointsWords(made.refusal, money);
    if (!made.ok) return;
    // What was typed meanwhile stays.
    if (typed === said.typed && reason === said.reason) [typed, reason] = ['', ''];
    toast('Written down.');
  }
</script>

{#if held.value != null}
  {@const { points, worth, areOver, rewards } = held.value}
  <section class="sheet grid gap-4" aria-labelledby="points">
    <h2 id="points">Points and rewards</h2>
    <dl class="grid gap-4 sm:grid-cols-2" data-testid="points-held">
      <div>
        <dt class="soft">Points</dt>
        <dd class="amount text-3xl">{pointsFigure(points, money)}</dd>
        <dd class={areOver || points < 0 ? 'text-error' : 'soft'}>
          {areOver
            ? 'run out'
            : points < 0
              ? 'goods that had brought them came back'
              : `pay ${money.text(worth)}`}
        </dd>
      </div>
      {#each rewards as each (each.reward.id)}
        <div>
          <dt class="soft">{each.reward.name}</dt>
          <dd class={each.times > 0 ? 'text-lg font-[650]' : 'text-lg'}>
            {rewardHeldWords(each, money)}
          </dd>
        </div>
      {/each}
    </dl>
    <HeldMoves
      account="points:{customer}"
      testid="points-moved"
      figure={(amount) => pointsFigure(amount, money)}
    />
    <form
      class="flex flex-wrap items-end gap-3"
      aria-label="Give or take points"
      onsubmit={(event) => event.preventDefault()}
    >
      <div class="min-w-28 flex-1">
        <Field
          label="Give points; with a minus, take"
          bind:value={typed}
          inputmode="text"
          autocomplete="off"
        />
      </div>
      <div class="min-w-36 flex-2">
        <Field label="Why" bind:value={reason} maxlength={200} />
      </div>
      <RightButton right="voucher.set" look="btn-quiet" label="Write it down" onGo={move} />
    </form>
    {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
    <p class="soft">
      <a class="plain" href="/points">Points and rewards</a>: how they are given, and who has any.
      {points > 0 ? `${pointsWords(points, money)} can be spent at the counter.` : ''}
    </p>
  </section>
{/if}

<script lang="ts">
  import { categoryName } from '$lib/core/goods/categories';
  import type { Column } from '$lib/core/list/list-view';
  import { shortOf } from '$lib/core/ledger/chart';
  import { sum } from '$lib/core/money/units';
  import { worthOf } from '$lib/core/points/points-rule';
  import { takeRunOut } from '$lib/core/points/set-points';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { pointsOfAll, type PointsOfAll } from '$lib/device/points';
  import List from '$lib/ui/list/List.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import {
    pointsFigure,
    pointsWords,
    rewardHeldWords,
    rewardWords,
  } from '$lib/ui/words/points-words';
  import { useStall } from '../stall.svelte';
  import WriteOff from '../vouchers/WriteOff.svelte';
  import PointsForm from './PointsForm.svelte';
  import RewardForm from './RewardForm.svelte';

  type Holder = PointsOfAll['customers'][number];

  const stall = useStall();
  const { db } = stall;
  const money = $derived(stall.money);
  const { locale } = $derived(stall.business);
  const found = live(() => () => pointsOfAll(db), undefined);
  const categories = live(() => () => db.books.categories.toArray(), []);
  const rule = $derived(found.value?.rule);
  const rewards = $derived(
    (found.value?.rewards ?? [])
      .filter(({ setStamp }) => setStamp !== '')
      .toSorted((a, b) => (a.name < b.name ? -1 : 1)),
  );
  const holders = $derived(found.value?.customers ?? []);
  const points = $derived(sum(holders.map(({ held }) => Math.max(0, held.points))));
  const over = $derived(holders.filter(({ held }) => held.areOver));
  let isAdding = $state(false);

  /** Those that ran out, as they are by then. */
  async function takeOver(lentBy?: string): Promise<void> {
    await stall.daybook.decide(
      async () => (await pointsOfAll(db)).customers.filter(({ held }) => held.areOver),
      (now) => ({
        ok: true,
        drafts: takeRunOut(
          newId,
          now.map(({ customer, held }) => ({ customer: customer.id, points: held.points })),
        ),
      }),
      lentBy === undefined ? {} : { lentBy },
    );
  }

  const nameOf = ({ customer }: Holder): string =>
    customer.isErased ? `forgotten, ${shortOf(customer.id)}` : customer.name;
  const reachedBy = ({ held }: Holder): string =>
    held.rewards
      .flatMap((each) =>
        each.times === 0 ? [] : `${each.reward.name} ${rewardHeldWords(each, money)}`,
      )
      .join(', ');
  const columns = $derived<readonly Column<Holder>[]>([
    { ...{ key: 'name', head: 'Customer', is: 'text' }, value: nameOf },
    {
      ...{ key: 'points', head: 'Points', is: 'figure' },
      value: ({ held }) => held.points,
      show: ({ held }) => `${pointsFigure(held.points, money)}${held.areOver ? ', run out' : ''}`,
    },
    {
      ...{ key: 'worth', head: 'They pay', is: 'figure' },
      value: ({ held }) => held.worth,
      show: ({ held }) => money.figure(held.worth),
    },
    { ...{ key: 'rewards', head: 'Rewards', is: 'text' }, value: reachedBy },
    {
      ...{ key: 'moved', head: 'Moved last', is: 'text' },
      value: ({ movedOn }) => movedOn,
      show: ({ movedOn }) => (movedOn === '' ? '' : shortDayWords(movedOn, locale)),
    },
  ]);
</script>

<div class="page gap-5">
  <h1>Points and rewards</h1>
  {#if found.value !== undefined && rule !== undefined}
    <p class="text-lg">
      {#if points === 0}
        Nobody has points yet.
      {:else}
        Given and not spent: <b data-testid="points-owed">{pointsWords(points, money)}</b>, which
        pay <b class="amount">{money.text(worthOf(points, rule))}</b>.
      {/if}
    </p>
    {#if over.length > 0}
      <div class="sheet flex flex-wrap items-center justify-between gap-3">
        <span
          >{over.length === 1
            ? 'One customer’s points'
            : `Points of ${String(over.length)} customers`}
          ran out.</span
        >
        <WriteOff
          what={pointsWords(sum(over.map(({ held }) => held.points)), money)}
          says="cannot be spent any more, and are taken off"
          onGo={takeOver}
        />
      </div>
    {/if}
    <div class="grid items-start gap-5 lg:grid-cols-2">
      <section class="grid gap-3" aria-labelledby="rule">
        <h2 id="rule">How points are given</h2>
        {#key stall.business.pointsStamp}<PointsForm {rule} />{/key}
      </section>
      <section class="grid gap-3" aria-labelledby="rewards">
        <h2 id="rewards">Rewards</h2>
        <p class="soft">What a customer gets off who has spent so much, again and again.</p>
        {#each rewards as reward (`${reward.id} ${reward.setStamp}`)}
          <details class="sheet" data-testid="reward">
            <summary class="min-h-12 cursor-pointer content-center"
              ><b>{reward.name}</b>
              <span class="soft"
                >{rewardWords(
                  reward,
                  (category) => categoryName(category, categories.value),
                  money,
                )}</span
              ></summary
            >
            <RewardForm {reward} {rewards} />
          </details>
        {/each}
        {#if isAdding}
          <div class="sheet">
            <RewardForm {rewards} onDone={() => (isAdding = false)} />
          </div>
        {:else}
          <button
            type="button"
            class="btn btn-quiet justify-self-start"
            onclick={() => (isAdding = true)}>Add a reward</button
          >
        {/if}
      </section>
    </div>
    {#if holders.length > 0}
      <section class="sheet" aria-label="Who has points">
        <List
          name="Points"
          testid="holders"
          rows={holders}
          {columns}
          keyOf={({ customer }) => customer.id}
          order={{ column: 'points', isDown: true }}
          wide={['rewards', 'moved']}
          empty="Nobody fits."
          find="Customer, reward"
          looks={({ held }, column) =>
            column === 'points' && held.points < 0 ? 'text-error font-[650]' : ''}
        >
          {#snippet first(row)}
            <a class="plain" href="/customers/{row.customer.id}">{nameOf(row)}</a>
          {/snippet}
        </List>
      </section>
    {/if}
  {/if}
</div>

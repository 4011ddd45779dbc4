<script lang="ts">
  import { keptAnswerSchema, type KeptAnswer } from '$lib/core/daybook/sync-messages';
  import { openOnes, type KeptEntry } from '$lib/core/loose-end/kept-entry';
  import { lateCashes, lateCashName } from '$lib/core/loose-end/late-cash';
  import { lateCounts } from '$lib/core/loose-end/late-count';
  import { leftOnSlip } from '$lib/core/loose-end/left-on-slip';
  import { offDays } from '$lib/core/loose-end/off-day';
  import { voidedTwice, voidedTwiceName } from '$lib/core/loose-end/voided-twice';
  import { soldTwice } from '$lib/core/loose-end/sold-twice';
  import { openCardEnds } from '$lib/core/payment/card-state';
  import { unsettledCards } from '$lib/device/cards/card-rows';
  import { live } from '$lib/device/live.svelte';
  import { wrongOf } from '$lib/ui/words/answer-words';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { settledWords } from '$lib/ui/words/loose-end-words';
  import { useStall } from '../stall.svelte';
  import BankEnds from './BankEnds.svelte';
  import ChargeEnds from './ChargeEnds.svelte';
  import OrderEnds from './OrderEnds.svelte';
  import EventEnds from './EventEnds.svelte';
  import CardEndCard from './CardEndCard.svelte';
  import SoldTwiceCard from './SoldTwiceCard.svelte';
  import LateCashCard from './LateCashCard.svelte';
  import LateCountCard from './LateCountCard.svelte';
  import OffDayCard from './OffDayCard.svelte';
  import LeftOnSlipCard from './LeftOnSlipCard.svelte';
  import VoidedTwiceCard from './VoidedTwiceCard.svelte';
  import KeptCard from './KeptCard.svelte';
  import HandOver from './HandOver.svelte';
  import { keepHands } from './hands.svelte';

  const stall = useStall();
  const { db } = stall;
  /** A card that was asked for this lately may still be under way. */
  const A_MINUTE = 60_000;
  let asked = $state.raw<readonly KeptEntry[] | null>(null);
  let more = $state(0);
  /** Cards that were charged, and that no device has written down. */
  let charged = $state.raw<KeptAnswer['charged']>([]);
  let says = $state('');
  /** How many the events have; null until the server has said. */
  let ofEvents = $state<number | null>(null);
  /** Lines of the bank without a name, as far as this person sees the bank. */
  let ofBank = $state(0);
  let ofOrders = $state(0);
  let ofCharges = $state(0);
  const hands = keepHands();
  const settlements = live(() => () => db.books.settlements.toArray(), []);
  const here = live(() => () => db.kept.where('id').above('').toArray(), []);
  const sales = live(() => () => db.books.sales.toArray(), []);
  const twice = $derived(soldTwice(sales.value, settlements.value));
  const voids = live(() => () => db.books.voids.toArray(), []);
  const undone = live(() => () => db.books.voidsUndone.toArray(), []);
  const voided = $derived(voidedTwice(voids.value, undone.value));
  const slips = live(() => () => db.books.slips.where('state').equals('gone').toArray(), []);
  const slipLines = live(() => () => db.books.slipLines.toArray(), []);
  const left = $derived(leftOnSlip(slips.value, slipLines.value, settlements.value));
  const hours = live(() => () => db.books.eventHours.toArray(), []);
  const events = live(() => () => db.books.events.toArray(), []);
  const off = $derived(offDays(events.value, hours.value, settlements.value));
  const counts = live(
    () => async () => {
      const accepted = await db.books.countsAccepted.toArray();
      if (accepted.length === 0) return { accepted, moves: [], stock: new Map<string, number>() };
      const places = [...new Set(accepted.map(({ place }) => place))];
      const [moves, stock] = await Promise.all([
        db.books.moves.where('place').anyOf(places).toArray(),
        db.books.stock.where('place').anyOf(places).toArray(),
      ]);
      const of = stock.map(({ place, item, quantity }) => [`${place} ${item}`, quantity] as const);
      return { accepted, moves, stock: new Map(of) };
    },
    { accepted: [], moves: [], stock: new Map<string, number>() },
  );
  const late = $derived(
    lateCounts(
      counts.value.accepted,
      counts.value.moves,
      (place, item) => counts.value.stock.get(`${place} ${item}`) ?? 0,
      settlements.value,
      Date.now(),
    ),
  );
  const cash = live(
    () => async () => {
      const [drawers, sums, reads] = await Promise.all([
        db.books.drawers.toArray(),
        db.books.drawerSums.toArray(),
        db.books.drawerReads.toArray(),
      ]);
      return { drawers, sums, reads };
    },
    { drawers: [], sums: [], reads: [] },
  );
  const lateCash = $derived(lateCashes(cash.value.drawers, cash.value.sums, cash.value.reads));
  const cards = live(() => () => unsettledCards(db), []);
  const cardEnds = $derived(
    openCardEnds(
      cards.value,
      settlements.value,
      new Date(Date.now() - A_MINUTE).toISOString(),
      new Date().toISOString(),
    ),
  );
  const open = $derived(openOnes(asked ?? [], settlements.value));
  /** What this device itself cannot read, beyond what the server says. */
  const unread = $derived(
    here.value.filter(({ id, where }) => {
      const isSettled = settlements.value.some(({ looseEnd }) => looseEnd === `entry:${id}`);
      return where === 'here' || (asked === null && !isSettled);
    }),
  );
  const settled = $derived(
    settlements.value.toSorted((a, b) => (a.at < b.at ? 1 : -1)).slice(0, 50),
  );

  async function look(): Promise<void> {
    const answer = await stall.transport.ask('/api/kept', keptAnswerSchema);
    if (answer.came === 'answer') ({ kept: asked, more, charged } = answer.answer);
    says = wrongOf(
      answer,
      'No network now.',
      'This is what this device knows of; the server’s list has all of them.',
    );
  }
  $effect(() => void look());
</script>

<div class="page page-text gap-5">
  <h1>Loose ends</h1>
  <p class="soft">
    What was written without the right to it, could not be understood, was rung up twice or on
    another day, a card that does not tie up, and whatever is left open of the events. Nothing of it
    is lost; each is settled by a record that says how and why.
  </p>
  {#if says !== ''}
    <p class="sheet" role="status">{says}</p>
    <button type="button" class="btn btn-quiet justify-self-start" onclick={look}>Ask again</button>
  {/if}
  <label class="grid max-w-xs gap-1 font-[560]">
    Looked after by
    <select class="select min-h-12 w-full" bind:value={hands.person}>
      <option value="">anybody</option>
      {#each stall.staff as { id, name } (id)}<option value={id}>{name}</option>{/each}
    </select>
  </label>
  {#each twice.filter((each) => hands.isShown(each.looseEnd)) as each (each.looseEnd)}
    <SoldTwiceCard twice={each} settlements={settlements.value} />
  {/each}
  {#each voided.filter((each) => hands.isShown(voidedTwiceName(each))) as each (each.sale)}
    <VoidedTwiceCard twice={each} />
  {/each}
  {#each left.filter((each) => hands.isShown(each.looseEnd)) as each (each.looseEnd)}
    <LeftOnSlipCard left={each} settlements={settlements.value} />
  {/each}
  {#each off.filter((each) => hands.isShown(each.looseEnd)) as each (each.looseEnd)}
    <OffDayCard off={each} settlements={settlements.value} />
  {/each}
  {#each late.filter((each) => hands.isShown(each.looseEnd)) as each (each.looseEnd)}
    <LateCountCard late={each} />
  {/each}
  {#each lateCash.filter((each) => hands.isShown(lateCashName(each))) as each (each.drawer.id)}
    <LateCashCard late={each} />
  {/each}
  {#each cardEnds.filter( ({ payment }) => hands.isShown(`card:${payment.id}`) ) as end (end.payment.id)}
    <CardEndCard {end} settlements={settlements.value} />
  {/each}
  {#each charged.filter( ({ payment }) => hands.isShown(`charged:${payment}`) ) as card (card.payment)}
    <section class="sheet border-accent border-l-8" data-testid="charged">
      <h2>A card was charged, and no device has written it down</h2>
      <p>
        {stall.money.text(card.amount)}, {shortDayWords(
          card.at.slice(0, 10),
          stall.business.locale,
        )}, asked for by {stall.devices.find(({ id }) => id === card.device)?.name ?? 'a device'}.
        Give it back at the acquirer, or find out what was sold for it.
      </p>
      <div class="mt-2 flex flex-wrap gap-2">
        <HandOver looseEnd="charged:{card.payment}" />
      </div>
    </section>
  {/each}
  {#each open.filter(({ entry }) => hands.isShown(`entry:${entry.id}`)) as kept (kept.entry.id)}
    <KeptCard {kept} settlements={settlements.value} />
  {:else}
    {#if hands.person === '' && asked !== null && ofEvents === 0 && ofBank === 0 && ofOrders === 0 && ofCharges === 0 && charged.length === 0 && unread.length === 0 && twice.length === 0 && left.length === 0 && off.length === 0 && late.length === 0 && lateCash.length === 0 && voided.length === 0 && cardEnds.length === 0}
      <p class="sheet" data-testid="none">Nothing is loose. Everything that was written counts.</p>
    {/if}
  {/each}
  {#if more > 0}
    <p class="sheet">And {more} more; they follow as these are settled.</p>
  {/if}
  {#each unread as row (row.id)}
    <section class="sheet">
      <b class="code">{row.id.slice(0, 8)}</b>
      {row.where === 'server' ? 'on the server' : 'on this device'}: {row.message}
    </section>
  {/each}
  <OrderEnds
    settlements={settlements.value}
    isShown={(looseEnd) => hands.isShown(looseEnd)}
    onFound={(count) => (ofOrders = count)}
  />
  <ChargeEnds
    settlements={settlements.value}
    isShown={(looseEnd) => hands.isShown(looseEnd)}
    onFound={(count) => (ofCharges = count)}
  />
  <BankEnds onFound={(count) => (ofBank = count)} />
  <EventEnds settlements={settlements.value} onFound={(count) => (ofEvents = count)} />
  {#if settled.length > 0}
    <section class="sheet grid gap-2" aria-labelledby="settled">
      <h2 id="settled">Settled</h2>
      <ul class="grid" data-testid="settled">
        {#each settled as { id, at, by, how, reason } (id)}
          <li class="border-base-300 border-b py-2 last:border-0">
            <b>{settledWords[how]}</b>: {reason}
            <span class="soft block text-sm"
              >{stall.nameOf(by)}, {shortDayWords(at.slice(0, 10), stall.business.locale)}</span
            >
          </li>
        {/each}
      </ul>
    </section>
  {/if}
</div>

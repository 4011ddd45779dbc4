<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { page } from '$app/state';
  import type { Row } from '$lib/core/books/tables';
  import {
    acceptCount,
    countedOf,
    countNumber,
    endCount,
    isEnded,
    noteCounted,
    notCounted,
    type Counted,
    type CountFacts,
    type CountOutcome,
  } from '$lib/core/stock/count';
  import { guarded } from '$lib/core/formats/csv-cell';
  import { readCountLines, type Planned } from '$lib/core/formats/goods-table';
  import { quantityText, thousandths } from '$lib/core/money/units';
  import { readCsv } from '$lib/device/csv';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { underKey } from '$lib/device/under-key';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { countRefusalWords } from '$lib/ui/words/stock-words';
  import RightButton from '../../../RightButton.svelte';
  import { useStall } from '../../../stall.svelte';
  import { saveCsv } from '$lib/ui/files/save-csv';
  import TakeFileIn from '../../../forms/TakeFileIn.svelte';
  import { Goods } from '../../goods.svelte';
  import { itemName } from '$lib/core/goods/item-name';
  import GoodsLine from '../../GoodsLine.svelte';

  const stall = useStall();
  const { books } = stall.db;
  const goods = new Goods(stall);
  const id = $derived(page.params['id'] ?? '');
  const found = live(
    () => {
      const wanted = id;
      return async () => {
        const count = await books.counts.get(wanted);
        return count === undefined || count.setStamp === '' ? null : count;
      };
    },
    null as Row<'counts'> | null,
  );
  const count = $derived(found.value);
  const facts = live(
    () => {
      const now = count;
      return () => (now === null ? null : factsOf(now));
    },
    null as CountFacts | null,
  );
  /** What it is worked out from, as the rows are; goods are the screen's. */
  async function factsOf({ id: of, place }: Row<'counts'>): Promise<CountFacts> {
    const [own, stock, accepted, moves] = await Promise.all([
      books.countNotes.where('count').equals(of).toArray(),
      underKey(books.stock, place).toArray(),
      books.countsAccepted.where('place').equals(place).toArray(),
      books.moves.where('place').equals(place).toArray(),
    ]);
    const onHand = new Map(stock.map((row) => [row.item, row.quantity]));
    return { place, notes: own, moves, onHand, items: goods.items, accepted };
  }
  const isOver = $derived(count !== null && isEnded(count));
  const isMeant = (item: string): boolean => {
    const known = goods.items.get(item);
    return (
      known?.isStocked === true && (count?.category === '' || known.category === count?.category)
    );
  };
  const counted = $derived(
    facts.value === null
      ? []
      : countedOf({ ...facts.value, items: goods.items }).toSorted((a, b) =>
          goods.nameOf(a.item) < goods.nameOf(b.item) ? -1 : 1,
        ),
  );
  const onHand = $derived(facts.value?.onHand ?? new Map<string, number>());
  const missing = $derived(notCounted(onHand, facts.value?.notes ?? [], isMeant));
  const items = $derived(goods.stocked.filter((item) => isMeant(item.id)));
  /** Whoever counts blind does not see it; whoever accepts does. */
  const isSeen = $derived(count !== null && (!count.isBlind || stall.may('count.accept')));
  const open = $derived(counted.filter((each) => !each.isAccepted && !each.isSuperseded));
  const off = $derived(open.filter((each) => each.difference !== 0));
  const lost = $derived(off.reduce((sum, each) => sum + each.lost, 0));
  const retail = $derived(off.reduce((sum, each) => sum + each.retail, 0));
  let says = $state('');
  let reason = $state('');
  let isBusy = $state(false);

  const say = (outcome: Awaited<ReturnType<typeof append>>): string => {
    says =
      outcome.ok || outcome.refusal.code === 'slip/gone' ? '' : countRefusalWords(outcome.refusal);
    return says;
  };
  const append = (command: () => CountOutcome, lentBy?: string) =>
    stall.daybook.append(command, lentBy === undefined ? {} : { lentBy });

  async function note(item: Row<'items'>, quantity: number | null): Promise<string> {
    if (count === null) return '';
    const now = count;
    const much = [{ item: item.id, quantity: quantity ?? 1000 }];
    return say(await append(() => noteCounted(newId, now, much)));
  }
  async function accept(only: ReadonlySet<string> | undefined, lentBy?: string): Promise<void> {
    if (count === null || isBusy) return;
    const now = count;
    isBusy = true;
    const why = reason;
    // By the rows as they are: what has moved or been counted meanwhile counts.
    const outcome = await stall.daybook
      .decide(
        () => factsOf(now),
        (found) =>
          acceptCount({
            newId,
            count: now,
            counted: countedOf(found),
            only,
            reason: why,
            now: Date.now(),
          }),
        lentBy === undefined ? {} : { lentBy },
      )
      .finally(() => (isBusy = false));
    if (say(outcome) !== '') return;
    reason = '';
    toast('The books say what was counted.');
  }
  /** What is to be counted, with what was counted so far; taken in again it is compared with that. */
  function saveSheet(): void {
    if (count === null) return;
    const so = new Map(counted.map((each) => [each.item, each.counted]));
    const rows = items.map((item) => ({
      code: guarded(item.code),
      item: guarded(itemName(item)),
      counted: so.has(item.id) ? quantityText(thousandths(so.get(item.id) ?? 0)) : '',
    }));
    saveCsv(countNumber(count), rows);
  }
  function readFile(text: string): Promise<readonly Planned[] | string> {
    const { lines, fault } = readCsv(text, ['code', 'item']);
    if (fault !== '' || count === null) return Promise.resolve(fault);
    return Promise.resolve(
      readCountLines({
        newId,
        lines,
        items: items.values(),
        count,
        counted: new Map(counted.map((each) => [each.item, each.counted])),
      }),
    );
  }
  async function end(how: 'done' | 'off'): Promise<void> {
    if (count === null) return;
    const now = count;
    say(await append(() => endCount(newId, now, how)));
    await stall.daybook.settle();
  }
  const differs = ({ item, difference }: Counted): string => {
    const unit = goods.unitOf(item);
    if (difference === 0) return 'ties up';
    return `${quantityWords(Math.abs(difference), unit)} ${difference < 0 ? 'missing' : 'over'}`;
  };
</script>

<div class="page page-wide gap-5">
  {#if count === null}
    {#if found.isRead}
      <h1>No such count</h1>
      <p class="sheet">
        This device knows none of that kind. <a class="plain" href="/stock/counts">Counts</a>
      </p>
    {/if}
  {:else if goods.isRead}
    <div class="flex flex-wrap items-baseline justify-between gap-x-4">
      <h1>{count.name} <span class="soft">{countNumber(count)}</span></h1>
      <span class="text-lg font-[600]" data-testid="count-state"
        >{count.how === 'off' ? 'called off' : isOver ? 'over' : 'going on'}</span
      >
    </div>
    <p class="soft -mt-3">
      {goods.placeName(count.place)}{count.isBlind ? ' · blind' : ''} · begun by {stall.nameOf(
        count.by,
      )}
    </p>
    {#if !isOver}
      <GoodsLine
        label="Scan or type what is there: 12 fern"
        {items}
        onGoods={note}
        does={(_item, quantity) => `Enter counts ${quantityWords(quantity ?? 1000, '')} more`}
      />
    {/if}
    {#if says !== ''}<p class="text-error" role="alert">{says}</p>{/if}
    <section class="sheet" aria-labelledby="counted">
      <h2 id="counted">Counted</h2>
      <table class="rows" data-testid="counted">
        <thead>
          <tr>
            <th scope="col" class="!text-left">Item</th>
            <th scope="col">Is</th>
            {#if isSeen}
              <th scope="col">Should be</th>
              <th scope="col">Difference</th>
              <th scope="col" class="max-sm:hidden">At cost</th>
              <th scope="col" class="max-sm:hidden">At retail</th>
            {/if}
          </tr>
        </thead>
        <tbody>
          {#each counted as each (each.item)}
            {@const unit = goods.unitOf(each.item)}
            <tr>
              <td class="!text-left">
                <a class="plain" href="/stock/items/{each.item}">{goods.nameOf(each.item)}</a>
                {#if !isOver && !each.isAccepted}
                  <button
                    type="button"
                    class="btn btn-quiet ml-2 min-h-10 px-3"
                    aria-label="One less of {goods.nameOf(each.item)}"
                    onclick={() => {
                      const item = goods.items.get(each.item);
                      if (item !== undefined) void note(item, -1000);
                    }}>−</button
                  >
                {/if}
              </td>
              <td class="figure font-[600]">{quantityWords(each.counted, unit)}</td>
              {#if isSeen}
                <td class="figure">{quantityWords(each.expected, unit)}</td>
                <td class={['figure', off.includes(each) && 'text-error']}
                  >{differs(each)}{#if each.isAccepted}<span class="soft block text-sm"
                      >accepted</span
                    >{:else if each.isSuperseded}<span class="soft block text-sm"
                      >counted again since</span
                    >{:else if each.difference !== 0 && !isOver}
                    <span class="block">
                      <RightButton
                        right="count.accept"
                        label="Accept"
                        look="btn-quiet !min-h-10 !px-3"
                        {isBusy}
                        onGo={(lentBy) => accept(new Set([each.item]), lentBy)}
                      />
                    </span>
                  {/if}</td
                >
                <td class="figure max-sm:hidden"
                  >{each.lost === 0 ? '' : stall.money.figure(-each.lost)}</td
                >
                <td class="figure max-sm:hidden"
                  >{each.retail === 0 ? '' : stall.money.figure(-each.retail)}</td
                >
              {/if}
            </tr>
          {:else}
            <tr><td colspan="6" class="soft !text-left">Nothing has been counted yet.</td></tr>
          {/each}
        </tbody>
      </table>
      {#if isSeen && off.length > 0}
        <p class="mt-3">
          {off.length}
          {off.length === 1 ? 'difference' : 'differences'} not accepted yet, {stall.money.text(
            Math.abs(lost),
          )}
          {lost < 0 ? 'over' : 'missing'} at cost, {stall.money.text(Math.abs(retail))} at retail.
        </p>
      {/if}
    </section>
    {#if !isOver}
      <details class="sheet">
        <summary class="min-h-10 cursor-pointer">As a file</summary>
        <div class="mt-2 grid gap-3">
          <button type="button" class="btn btn-quiet justify-self-start" onclick={saveSheet}
            >Save a sheet to count on</button
          >
          <TakeFileIn
            label="A CSV file with “code” or “item”, and “counted”"
            accept=".csv,text/csv"
            right={null}
            read={readFile}
            things={['item is', 'items are']}
          />
        </div>
      </details>
    {/if}
    {#if missing.length > 0 && isSeen}
      <details class="sheet">
        <summary class="min-h-10 cursor-pointer"
          >{missing.length}
          {missing.length === 1 ? 'item is' : 'items are'} not counted; they stay as they are</summary
        >
        <ul class="mt-2 grid gap-1">
          {#each missing as item (item)}
            <li>
              {goods.nameOf(item)}
              <span class="soft">{quantityWords(onHand.get(item) ?? 0, goods.unitOf(item))}</span>
            </li>
          {/each}
        </ul>
      </details>
    {/if}
    {#if !isOver}
      <div class="sheet grid gap-3">
        {#if off.length > 0}
          <label class="grid gap-1 font-[560]">
            What the differences come from
            <input class="input w-full" bind:value={reason} maxlength="200" autocomplete="off" />
          </label>
        {/if}
        <div class="flex flex-wrap gap-2">
          {#if open.length > 0}
            <RightButton
              right="count.accept"
              label={off.length === 0 ? 'Accept what ties up' : 'Accept all of it'}
              {isBusy}
              onGo={(lentBy) => accept(undefined, lentBy)}
            />
          {/if}
          <button
            type="button"
            class="btn btn-quiet"
            onclick={() => end(open.length === 0 ? 'done' : 'off')}
            >{open.length === 0 && counted.length > 0 ? 'The count is over' : 'Call it off'}</button
          >
        </div>
      </div>
    {/if}
  {/if}
</div>

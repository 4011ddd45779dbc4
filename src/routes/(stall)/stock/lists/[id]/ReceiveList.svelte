<script lang="ts">
  /** What came: of a delivery at the price on the note, or of what somebody sent. */
  import { toast } from 'svelte-sonner';
  import { SUPPLIERS, type Row } from '$lib/core/books/tables';
  import { GONE } from '$lib/core/daybook/kinds/stock-moved';
  import { readAmount } from '$lib/core/money/amount-text';
  import { quantityText, thousandths } from '$lib/core/money/units';
  import { costOf } from '$lib/core/sale/cost';
  import { receive, settleWay, type Arrived } from '$lib/core/stock/do-list';
  import { isInTwoSteps, underWay, type LineNow } from '$lib/core/stock/list-state';
  import { typedQuantity } from '$lib/core/stock/set-list';
  import { newId } from '$lib/device/new-id';
  import { draftOr, dropDraft, keepDraft } from '$lib/ui/forms/typed-draft.svelte';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { listRefusalWords, reasonWords } from '$lib/ui/words/stock-words';
  import RightButton from '../../../RightButton.svelte';
  import { useStall } from '../../../stall.svelte';
  import { wholeList, type Goods } from '../../goods.svelte';

  interface Props {
    list: Row<'lists'>;
    lines: readonly LineNow[];
    goods: Goods;
  }
  const { list, lines, goods }: Props = $props();
  const stall = useStall();
  const isSent = $derived(isInTwoSteps(list));
  const isBought = $derived(list.from === SUPPLIERS);
  const toCome = (line: LineNow): number =>
    Math.max(0, isSent ? underWay(line) : line.wanted - line.received);
  const waiting = $derived(lines.filter((line) => toCome(line) > 0));

  // svelte-ignore state_referenced_locally
  const about = `arrived ${list.id}`;
  interface Typed {
    much: Record<string, string>;
    amount: Record<string, string>;
    note: string;
  }
  let typed = $state<Typed>(draftOr(about, '', { much: {}, amount: {}, note: '' }));
  keepDraft(about, '', () => $state.snapshot(typed));
  let says = $state('');
  let isMoreMeant = $state(false);
  let isBusy = $state(false);
  let became = $state<(typeof GONE)[number] | 'never left'>('lost');

  function read(): readonly Arrived[] | string {
    const found: Arrived[] = [];
    for (const { item } of lines) {
      const text = typed.much[item] ?? '';
      if (text.trim() === '') continue;
      const much = typedQuantity(text, goods.items.get(item) ?? { decimals: 3 });
      if (!much.ok) return `${goods.nameOf(item)}: ${listRefusalWords(much.refusal, goods.nameOf)}`;
      const price = (typed.amount[item] ?? '').trim();
      const amount = price === '' ? null : readAmount(price, stall.business.currency);
      if (amount !== null && !amount.ok)
        return `${goods.nameOf(item)}: “${price}” is no amount; type one such as 18.40.`;
      found.push({ item, quantity: much.quantity, amount: amount === null ? null : amount.amount });
    }
    return found;
  }
  const rows = () => wholeList(stall, list);

  async function take(lentBy?: string): Promise<void> {
    const goodsIn = read();
    if (typeof goodsIn === 'string') {
      says = goodsIn;
      return;
    }
    if (isBusy) return;
    isBusy = true;
    const taken = $state.snapshot(typed);
    const { note } = taken;
    const outcome = await stall.daybook
      .decide(
        rows,
        (found) =>
          receive({
            newId,
            list: found.list,
            lines: found.lines,
            goods: goodsIn,
            costs: goods.items,
            note,
            isMoreMeant,
          }),
        lentBy === undefined ? {} : { lentBy },
      )
      .finally(() => (isBusy = false));
    if (!outcome.ok) {
      if (outcome.refusal.code === 'slip/gone') return;
      isMoreMeant = outcome.refusal.code === 'list/more-than-wanted';
      says = listRefusalWords(outcome.refusal, goods.nameOf);
      return;
    }
    [says, isMoreMeant] = ['', false];
    dropDraft(about);
    // What was typed meanwhile stays.
    for (const part of ['much', 'amount'] as const)
      for (const [item, text] of Object.entries(taken[part]))
        if (typed[part][item] === text) typed[part][item] = '';
    if (typed.note === note) typed.note = '';
    toast(`It is at ${goods.placeName(list.to)} now.`);
  }
  async function didNotArrive(lentBy?: string): Promise<void> {
    const what = became;
    const outcome = await stall.daybook.decide(
      rows,
      (found) => settleWay(newId, found.list, found.lines, what, goods.items),
      lentBy === undefined ? {} : { lentBy },
    );
    if (outcome.ok) toast('That is in the books, with its reason.');
    else if (outcome.refusal.code !== 'slip/gone')
      says = listRefusalWords(outcome.refusal, goods.nameOf);
  }
  function fillAll(): void {
    for (const line of waiting) typed.much[line.item] = quantityText(thousandths(toCome(line)));
  }
  const usual = (line: LineNow): string => {
    const read = typedQuantity(typed.much[line.item] ?? '', { decimals: 3 });
    const cost = line.price ?? goods.items.get(line.item)?.cost ?? null;
    const amount = read.ok ? costOf({ quantity: read.quantity, cost }) : null;
    return amount === null || amount === 0 ? '' : stall.money.plain(amount);
  };
</script>

<section class="sheet grid grid-cols-[minmax(0,1fr)] gap-3" aria-labelledby="came">
  <div class="flex flex-wrap items-center justify-between gap-3">
    <h2 id="came">{isSent ? 'On the way: what arrived' : 'What came'}</h2>
    {#if waiting.length > 0}
      <button type="button" class="btn btn-quiet" onclick={fillAll}>All of it came</button>
    {/if}
  </div>
  <table class="rows" data-testid="receive-lines">
    <thead>
      <tr>
        <th scope="col" class="!text-left">Item</th>
        <th scope="col" class="max-sm:hidden">Still to come</th>
        <th scope="col">Came</th>
        {#if isBought}<th scope="col">On the note</th>{/if}
      </tr>
    </thead>
    <tbody>
      {#each isSent ? waiting : lines as line (line.item)}
        <tr>
          <td class="!text-left">
            {goods.nameOf(line.item)}
            <span class="soft block text-sm"
              >{line.received > 0
                ? `${quantityWords(line.received, goods.unitOf(line.item))} came before`
                : ''}<span class="sm:hidden"
                >{line.received > 0 ? ', ' : ''}{quantityWords(
                  toCome(line),
                  goods.unitOf(line.item),
                )} to come</span
              ></span
            >
          </td>
          <td class="figure max-sm:hidden"
            >{quantityWords(toCome(line), goods.unitOf(line.item))}</td
          >
          <td>
            <input
              class="input figure w-16 text-right sm:w-20"
              inputmode="decimal"
              aria-label="Came of {goods.nameOf(line.item)}"
              bind:value={typed.much[line.item]}
              oninput={() => (isMoreMeant = false)}
            />
          </td>
          {#if isBought}
            <td>
              <input
                class="input figure w-20 text-right sm:w-24"
                inputmode="decimal"
                aria-label="On the note for {goods.nameOf(line.item)}"
                placeholder={usual(line)}
                bind:value={typed.amount[line.item]}
              />
            </td>
          {/if}
        </tr>
      {/each}
    </tbody>
  </table>
  <label class="grid gap-1 font-[560]">
    {isBought ? 'Number of the delivery note' : 'Note'}
    <input class="input w-full" bind:value={typed.note} maxlength="200" autocomplete="off" />
  </label>
  {#if says !== ''}<p class="text-error" role="alert">{says}</p>{/if}
  <RightButton
    right="stock.move"
    label={isMoreMeant ? 'That is what came' : isBought ? 'Take the delivery in' : 'It arrived'}
    {isBusy}
    onGo={take}
  />
  {#if isSent && waiting.length > 0}
    <div class="border-base-300 mt-2 flex flex-wrap items-end gap-3 border-t pt-3">
      <label class="grid gap-1 font-[560]">
        What did not arrive
        <select class="select min-h-12" bind:value={became}>
          <option value="never left">never left {goods.placeName(list.from)}</option>
          {#each GONE as each (each)}<option value={each}>was {reasonWords(each)}</option>{/each}
        </select>
      </label>
      <RightButton right="stock.move" label="Say so" look="btn-quiet" onGo={didNotArrive} />
    </div>
  {/if}
</section>

<script lang="ts">
  /** Should be, is, and the difference in words: a row for each thing, which opens into what is behind it. */
  import { heldTotals } from '$lib/core/held/held-account';
  import type { Row } from '$lib/core/books/tables';
  import type { Settling } from '$lib/core/settle/settling';
  import { live } from '$lib/device/live.svelte';
  import DrawerFormula from '$lib/ui/cash/DrawerFormula.svelte';
  import { heldAtEventWords } from '$lib/ui/words/held-words';
  import { cashMoveWords } from '$lib/ui/words/cash-words';
  import { quantityWords } from '$lib/ui/words/money-words';
  import { guessWords, type SettleNames } from '$lib/ui/words/settle-words';
  import { useStall } from '../../../stall.svelte';
  import BehindList from './BehindList.svelte';
  import CameForm from './CameForm.svelte';
  import CameList from './CameList.svelte';
  import HandIn from './HandIn.svelte';

  interface Props {
    event: Row<'events'>;
    settling: Settling;
    names: SettleNames;
  }
  const { event, settling, names }: Props = $props();
  const stall = useStall();
  const { books } = stall.db;
  const money = $derived(stall.money);
  const cash = live(
    () => {
      const { id } = event;
      return async () => ({
        drawers: await books.drawers.where('event').equals(id).toArray(),
        sums: await books.drawerSums.toArray(),
        moves: await books.cashMoves.where('event').equals(id).toArray(),
      });
    },
    { drawers: [], sums: [], moves: [] },
  );
  let open = $state<string | null>(null);
  /** Whose sales are shown. */
  let openItem = $state('');
  /** All items, also those that agree. */
  let isAll = $state(false);

  type Look = { readonly key: string; readonly what: string } & (
    | { readonly is: 'money'; readonly should: number; readonly found: number | null }
    | { readonly is: 'to come'; readonly should: number; readonly left: number }
  );
  const stockOff = $derived(settling.stock.filter((each) => each.open !== 0));
  const goneAtRetail = $derived(stockOff.reduce((sum, { retail }) => sum + retail, 0));
  const leftIn = (bag: string): number =>
    settling.balances.find(({ account }) => account === `bag:${bag}`)?.amount ?? 0;
  const hasCome = (bag: string): boolean =>
    settling.came.some(({ from }) => from.some(({ account }) => account === `bag:${bag}`));
  const rows = $derived<readonly Look[]>([
    ...settling.drawers.map(({ drawer, name, should, is }): Look => ({
      key: `drawer ${drawer}`,
      what: `Cash in ${name}`,
      is: 'money',
      should,
      found: is,
    })),
    {
      key: 'cards',
      what: 'Cards, by the report',
      is: 'money',
      should: settling.cards.tills,
      found: settling.cards.isReported ? settling.cards.reported : null,
    },
    ...settling.toCome.map(({ way, taken, open: left }): Look => ({
      key: `way ${way}`,
      what: `${names.way(way)}, at the bank`,
      is: 'to come',
      should: taken,
      left,
    })),
    ...settling.bags
      .filter(({ id }) => leftIn(id) !== 0 || hasCome(id))
      .map(({ id, number, amount }): Look => ({
        key: `bag ${id}`,
        what: `Bag ${number}, at the bank`,
        is: 'to come',
        should: amount,
        left: leftIn(id),
      })),
  ]);
  const differenceOf = (row: Look): { readonly says: string; readonly isOff: boolean } => {
    if (row.is === 'to come')
      return row.left === 0
        ? { says: 'has come', isOff: false }
        : { says: `${money.text(row.left)} to come`, isOff: true };
    if (row.found === null)
      return row.should === 0
        ? { says: 'none', isOff: false }
        : { says: row.key === 'cards' ? 'not asked yet' : 'not counted', isOff: true };
    const off = row.found - row.should;
    return off === 0 ? { says: 'ties up', isOff: false } : { says: money.off(off), isOff: true };
  };
  /** What customers owe and are owed since: nothing of it is there to be counted. */
  const held = $derived(heldTotals(settling.balances));
  /** Drawers are counted blind here, or by whoever may not see what should be in them. */
  const isHidden = (row: Look): boolean =>
    row.is === 'money' && row.key.startsWith('drawer ') && row.found === null && !stall.seesCash();
  /** Cheques and tokens are things; what comes by transfer or from a terminal is not. */
  const isHandedIn = (way: string): boolean =>
    ['cheque', 'own'].includes(stall.wayRows.find(({ id }) => id === way)?.method ?? '');
  const drawerName = (id: string): string =>
    cash.value.drawers.find((drawer) => drawer.id === id)?.name ?? 'a drawer';
</script>

<section class="sheet" aria-label="Should be and is">
  <table class="rows" data-testid="settle-table">
    <thead
      ><tr
        ><td></td><th scope="col">Should be</th><th scope="col">Is</th><th scope="col"
          >Difference</th
        ></tr
      ></thead
    >
    <tbody>
      {#each rows as row (row.key)}
        {@const { says, isOff } = differenceOf(row)}
        <tr>
          <td>
            <button
              type="button"
              class="plain min-h-12 text-left"
              aria-expanded={open === row.key}
              onclick={() => (open = open === row.key ? null : row.key)}>{row.what}</button
            >
          </td>
          <td class="figure">{isHidden(row) ? '–' : money.figure(row.should)}</td>
          <td class="figure"
            >{row.is === 'to come'
              ? money.figure(row.should - row.left)
              : row.found === null
                ? '–'
                : money.figure(row.found)}</td
          >
          <td class={['figure', isOff ? 'text-error font-[650]' : 'text-secondary font-[650]']}
            >{says}</td
          >
        </tr>
        {#if open === row.key}
          <tr class="bg-base-200/60">
            <td colspan="4" class="p-3">
              {#if row.key.startsWith('drawer ')}
                {@const id = row.key.slice('drawer '.length)}
                {@const drawer = cash.value.drawers.find((each) => each.id === id)}
                {#if isHidden(row)}
                  <p class="soft">What should be in it is shown once it has been counted.</p>
                {:else if drawer === undefined}
                  <p class="soft">This device has no details of that drawer; it is long past.</p>
                {:else}
                  <DrawerFormula
                    {money}
                    {drawer}
                    sums={cash.value.sums.find((each) => each.drawer === id)}
                  />
                  <ul class="soft mt-2 grid gap-1 text-sm">
                    {#each cash.value.moves.filter( (move) => [move.from, move.to].includes(`drawer:${id}`) ) as move (move.id)}
                      <li class="flex justify-between gap-3">
                        <span>{cashMoveWords(move, drawerName)}</span><span class="figure"
                          >{money.figure(move.amount)}</span
                        >
                      </li>
                    {/each}
                  </ul>
                  <h3 class="mt-3 font-[650]">What went into it</h3>
                  <BehindList event={event.id} of="drawer" {id} {names} />
                {/if}
              {:else if row.key === 'cards'}
                <ul class="grid gap-1 text-sm">
                  {#each settling.cards.missing as card (card.payment)}
                    <li>
                      Not in the report: {money.text(card.amount)} ending {card.last4}, {names.moment(
                        card.at,
                      )}
                    </li>
                  {/each}
                  {#each settling.cards.odd as odd (`${odd.line} ${odd.is}`)}
                    <li>
                      In the report, {odd.is}: {money.text(odd.amount)} ending {odd.last4}, {names.moment(
                        odd.at,
                      )}
                    </li>
                  {/each}
                  {#if settling.cards.missing.length + settling.cards.odd.length === 0}
                    <li class="soft">
                      {settling.cards.isReported
                        ? 'Every payment has its line, and every line its payment.'
                        : 'Fetch the report below.'}
                    </li>
                  {/if}
                </ul>
              {:else if row.is === 'to come'}
                {@const account = row.key.startsWith('bag ')
                  ? `bag:${row.key.slice('bag '.length)}`
                  : `owed:${row.key.slice('way '.length)}`}
                {@const way = row.key.slice('way '.length)}
                <div class="grid gap-3">
                  <CameList event={event.id} came={settling.came} {account} />
                  {#if row.left > 0}
                    {#if isHandedIn(way)}
                      <HandIn event={event.id} {way} open={row.left} {settling} />
                    {/if}
                    <CameForm
                      event={event.id}
                      from={[{ account, amount: row.left }]}
                      what={row.what}
                      expected={row.left}
                    />
                    <p class="soft text-sm">
                      A <a class="plain" href="/bank">statement of the bank</a> that is taken in finds
                      it by itself.
                    </p>
                  {:else}
                    <p class="soft">All of it is at the bank.</p>
                  {/if}
                  {#if row.key.startsWith('way ')}
                    <h3 class="font-[650]">What it was taken for</h3>
                    <BehindList event={event.id} of="way" id={way} {names} />
                  {/if}
                </div>
              {/if}
            </td>
          </tr>
        {/if}
      {/each}
      <tr>
        <td>
          <button
            type="button"
            class="plain min-h-12 text-left"
            aria-expanded={open === 'stock'}
            onclick={() => (open = open === 'stock' ? null : 'stock')}
            >Goods gone and not rung up, at retail</button
          >
        </td>
        <td class="figure">{money.figure(0)}</td>
        <td class="figure">{money.figure(goneAtRetail)}</td>
        <td class={['figure font-[650]', stockOff.length > 0 ? 'text-error' : 'text-secondary']}
          >{stockOff.length === 0 ? 'ties up' : `${stockOff.length} off`}</td
        >
      </tr>
      {#if open === 'stock'}
        <tr class="bg-base-200/60">
          <td colspan="4" class="p-3">
            <table class="rows" data-testid="settle-stock">
              <thead
                ><tr
                  ><th scope="col">Item</th><th scope="col" class="max-sm:hidden">Out</th><th
                    scope="col"
                    class="max-sm:hidden">Back</th
                  ><th scope="col" class="max-sm:hidden">Gone</th><th scope="col">Rung up</th><th
                    scope="col">Open</th
                  ></tr
                ></thead
              >
              <tbody>
                {#each isAll ? settling.stock : stockOff as each (each.item)}
                  {@const unit = names.unit(each.item)}
                  <tr>
                    <td
                      ><button
                        type="button"
                        class="plain min-h-12 min-w-12 text-left"
                        aria-expanded={openItem === each.item}
                        onclick={() => (openItem = openItem === each.item ? '' : each.item)}
                        >{names.item(each.item)}</button
                      >
                      {#if each.open !== 0}
                        <span class="soft block text-sm">{guessWords(each.guess, names)}</span>
                      {/if}</td
                    >
                    <td class="figure max-sm:hidden">{quantityWords(each.loaded, unit)}</td>
                    <td class="figure max-sm:hidden">{quantityWords(each.back, unit)}</td>
                    <td class="figure max-sm:hidden">{quantityWords(each.gone, unit)}</td>
                    <td class="figure">{quantityWords(each.sold, unit)}</td>
                    <td class={['figure', each.open !== 0 && 'text-error font-[650]']}
                      >{quantityWords(each.open, unit)}</td
                    >
                  </tr>
                  {#if openItem === each.item}
                    <tr>
                      <td colspan="6" class="!text-left">
                        <BehindList event={event.id} of="item" id={each.item} {names} />
                      </td>
                    </tr>
                  {/if}
                {/each}
              </tbody>
            </table>
            {#if settling.stock.length > stockOff.length}
              <button type="button" class="btn btn-quiet mt-2" onclick={() => (isAll = !isAll)}
                >{isAll ? 'Only what is off' : `All ${String(settling.stock.length)} items`}</button
              >
            {/if}
          </td>
        </tr>
      {/if}
    </tbody>
  </table>
  {#if held.length > 0}
    <ul class="soft mt-3 grid gap-1" data-testid="settle-held">
      {#each held as { head, amount } (head)}
        <li>{heldAtEventWords(head, amount, money)}</li>
      {/each}
    </ul>
  {/if}
</section>

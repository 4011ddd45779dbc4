/** What was booked wrongly: put right by a record, after which every figure is as if it had been booked so. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Books } from '../books/books';
import type { Entry } from '../daybook/entry';
import type { Fix } from '../daybook/kinds/sale-corrected';
import { journalOf } from '../journal';
import { imbalance } from '../journal/posting';
import { CASH_WAY } from '../payment/ways';
import { emptySlip, putItem } from '../slip/open-slip';
import { AT_EVENT, CARD, PRICING, VAT } from '../testing/a-sale';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import {
  CARD_WAY,
  customerId,
  DRAWER,
  EVENT,
  idOf,
  item,
  itemId,
  personId,
} from '../testing/made-up-business';
import { booksOf, knownEntries } from '../testing/books-of';
import { correctSale, type CorrectSale } from './correct-sale';
import { applied, asCorrected, partsAsPaid, partsPutRight, type Correctable } from './corrections';
import { takePart, type TakePart } from './take-part';
import { isShiftOver, voidBody } from './void-sale';

const writer = new DeviceWriter(1);
const { newId } = writer;
let sales = 0;

function sold(more: Partial<TakePart> = {}): readonly Entry[] {
  const put = putItem(emptySlip(newId()), item(1, 450), 2000, newId());
  assert.ok(put.ok);
  const taken = takePart({
    ...{ newId, slip: put.slip, pricing: PRICING, taxes: [VAT], event: AT_EVENT, now: 0 },
    ...{ way: CASH_WAY, drawer: DRAWER, amount: 1000, deviceNumber: 1, number: (sales += 1) },
    ...more,
  });
  assert.ok(taken.ok && taken.slip === null);
  return writer.append(taken.drafts, 0);
}
const rows = (books: Books): Correctable =>
  asCorrected(
    {
      sale: books.rows('sales')[0]!,
      lines: books.rows('saleLines'),
      payments: books.rows('payments'),
    },
    books.rows('corrections'),
  );
const correct = (entries: readonly Entry[], fix: Fix, more: Partial<CorrectSale> = {}) => {
  const books = booksOf(entries);
  return correctSale({
    ...{ ...rows(books), newId, fix, reason: 'wrong button', voids: [], undone: [] },
    returns: books.rows('returns'),
    ...more,
  });
};
const corrected = (entries: readonly Entry[], fix: Fix): readonly Entry[] => {
  const outcome = correct(entries, fix);
  if (!outcome.ok) assert.fail(outcome.refusal.code);
  return [...entries, ...writer.append(outcome.drafts, 1)];
};
const partIn = (entries: readonly Entry[]): string => booksOf(entries).rows('payments')[0]!.id;
const TOKENS = idOf(31, 7);
const byTokens = (part: string): Fix => ({
  ...{ is: 'way', part, way: TOKENS, wayName: 'Tokens', method: 'own' },
  ...{ drawer: null, reference: '' },
});
const inCash = (part: string): Fix => ({
  ...{ is: 'way', part, way: 'cash', wayName: 'Cash', method: 'cash' },
  ...{ drawer: DRAWER, reference: '' },
});
const other: Fix = {
  ...{ is: 'item', line: 0, item: itemId(2), name: 'Thing 2', detail: '', unit: '' },
  ...{ cost: null, isStocked: true, maker: null },
};
const balance = (entries: readonly Entry[], account: string): number =>
  knownEntries(entries)
    .flatMap((entry) => journalOf(entry).postings)
    .filter((posting) => posting.account === account)
    .reduce((total, { amount = 0 }) => total + amount, 0);

/** Another event, at which the second drawer is. */
const OTHER = idOf(4, 8);
const OTHERS_DRAWER = idOf(7, 8);
const toEvent = (to: string, cash: string | null = null): Fix => ({
  ...{ is: 'event', move: newId(), to, cash },
});
/** What stands on the accounts of an event; those at nothing left out. */
const accountsAt = (entries: readonly Entry[], event: string): Readonly<Record<string, number>> =>
  Object.fromEntries(
    booksOf(entries)
      .rows('eventAccounts')
      .filter((row) => row.event === event && row.amount !== 0)
      .map(({ account, amount }) => [account, amount]),
  );
const totalsAt = (entries: readonly Entry[], event: string) => {
  const row = booksOf(entries)
    .rows('eventTotals')
    .find((each) => each.event === event);
  return [row?.sales ?? 0, row?.takings ?? 0, row?.tax ?? 0, row?.units ?? 0];
};

describe('a sale that was rung up at the wrong event', () => {
  it('is sold there: takings, tax and stock follow, and cash that stays where it lies has a name', () => {
    const rung = sold();
    const before = accountsAt(rung, EVENT);
    assert.deepEqual(totalsAt(rung, EVENT), [1, 900, 150, 2]);
    const once = corrected(rung, toEvent(OTHER));
    assert.deepEqual(totalsAt(once, EVENT), [0, 0, 0, 0]);
    assert.deepEqual(totalsAt(once, OTHER), [1, 900, 150, 2]);
    assert.deepEqual(accountsAt(once, EVENT), { [`drawer:${DRAWER}`]: 900, elsewhere: -900 });
    const { [`drawer:${DRAWER}`]: _cash, ...sale } = before;
    assert.deepEqual(accountsAt(once, OTHER), { ...sale, elsewhere: 900 });
    const at = (place: string): number =>
      booksOf(once)
        .rows('stock')
        .find((row) => row.place === place && row.item === itemId(1))?.quantity ?? 0;
    assert.deepEqual([at(EVENT), at(OTHER)], [0, -2000]);
    const hours = booksOf(once).rows('eventHours');
    assert.deepEqual(
      hours.filter(({ takings }) => takings !== 0).map(({ event }) => event),
      [OTHER],
    );
    // And back again: as if nothing had been said.
    const twice = corrected(once, toEvent(EVENT));
    assert.deepEqual(accountsAt(twice, EVENT), before);
    assert.deepEqual(accountsAt(twice, OTHER), {});
  });

  it('has its cash in a drawer there, if that is said', () => {
    const rung = sold();
    const before = accountsAt(rung, EVENT);
    const once = corrected(rung, toEvent(OTHER, OTHERS_DRAWER));
    assert.deepEqual(accountsAt(once, EVENT), {});
    const { [`drawer:${DRAWER}`]: cash, ...sale } = before;
    assert.deepEqual(accountsAt(once, OTHER), { ...sale, [`drawer:${OTHERS_DRAWER}`]: cash });
    const sums = new Map(
      booksOf(once)
        .rows('drawerSums')
        .map((row) => [row.drawer, row]),
    );
    const inIt = (of: string): number => {
      const { handed = 0, change = 0, back = 0 } = sums.get(of) ?? {};
      return handed - change - back;
    };
    assert.deepEqual([inIt(DRAWER), inIt(OTHERS_DRAWER)], [0, 900]);
    // The sale alone goes back: its cash is elsewhere then.
    const twice = corrected(once, toEvent(EVENT));
    assert.deepEqual(accountsAt(twice, OTHER), {
      [`drawer:${OTHERS_DRAWER}`]: 900,
      elsewhere: -900,
    });
    assert.equal(accountsAt(twice, EVENT)['elsewhere'], 900);
  });

  it('takes what its change was short by along with its cash', () => {
    const rung = sold();
    const short = corrected(rung, { is: 'change', part: partIn(rung), change: 600 });
    const once = corrected(short, toEvent(OTHER, OTHERS_DRAWER));
    assert.deepEqual(accountsAt(once, EVENT), {});
    assert.equal(accountsAt(once, OTHER)['drawer-difference'], 500);
    assert.equal(accountsAt(once, OTHER)[`drawer:${OTHERS_DRAWER}`], 400);
  });

  it('is put right further where it stands, and its parts where those are', () => {
    const rung = sold();
    const part = partIn(rung);
    const moved = corrected(rung, toEvent(OTHER));
    const paid = corrected(moved, byTokens(part));
    assert.deepEqual(accountsAt(paid, EVENT), { [`owed:${TOKENS}`]: 900, elsewhere: -900 });
    const item = corrected(paid, other);
    assert.deepEqual(accountsAt(item, EVENT), accountsAt(paid, EVENT));
    const sold2 = booksOf(item)
      .rows('eventItems')
      .filter(({ quantity }) => quantity !== 0);
    assert.deepEqual(
      sold2.map((row) => [row.event, row.item, row.quantity]),
      [[OTHER, itemId(2), 2000]],
    );
  });

  const refused: readonly (readonly [string, string, Fix, Partial<CorrectSale>?])[] = [
    ['it is of that event already', 'correct/same', toEvent(EVENT)],
    [
      'some of it came back',
      'correct/came-back',
      toEvent(OTHER),
      { returns: [{ lines: [{ line: 0, quantity: 1000, to: 'stock' }] }] },
    ],
  ];
  for (const [why, code, fix, more] of refused)
    it(`is refused where ${why}`, () => {
      const outcome = correct(sold(), fix, more);
      assert.equal(outcome.ok ? 'put right' : outcome.refusal.code, code);
    });

  it('is refused where parts of it were paid elsewhere from the first', () => {
    const rung = sold();
    const payments = rows(booksOf(rung)).payments.map((part) => ({ ...part, event: OTHER }));
    const outcome = correct(rung, toEvent(OTHER), { payments });
    assert.equal(outcome.ok ? 'put right' : outcome.refusal.code, 'correct/several');
  });

  it('is refused where something was paid in by it', () => {
    const rung = sold();
    const lines = rows(booksOf(rung)).lines.map((line) => ({ ...line, account: 'voucher:X7' }));
    const outcome = correct(rung, toEvent(OTHER), { lines: lines });
    assert.equal(outcome.ok ? 'put right' : outcome.refusal.code, 'correct/account');
  });

  it('takes along what paid for it: a card, tokens, and not what goods paid that came back', () => {
    const byCard = sold({ way: CARD_WAY, drawer: null, amount: null, card: CARD });
    const outcome = correct(byCard, toEvent(OTHER, OTHERS_DRAWER));
    assert.equal(outcome.ok ? 'put right' : outcome.refusal.code, 'correct/no-drawer');
    const before = accountsAt(byCard, EVENT);
    const once = corrected(byCard, toEvent(OTHER));
    assert.deepEqual(accountsAt(once, EVENT), {});
    assert.deepEqual(accountsAt(once, OTHER), before);
    const ways = booksOf(once).rows('eventWays');
    assert.deepEqual(
      ways.filter(({ takings }) => takings !== 0).map(({ event, way }) => [event, way]),
      [[OTHER, CARD_WAY.id]],
    );
    const { payments, ...of } = rows(booksOf(byCard));
    const swapped = payments.map((part) => ({ ...part, method: 'exchange' as const }));
    const { payments: now, sale } = applied({ ...of, payments: swapped }, toEvent(OTHER));
    assert.deepEqual([sale.event, now[0]!.event], [OTHER, EVENT]);
  });

  it('is said once, whatever was said elsewhere between the two entries that say it', () => {
    const rung = sold();
    const [sale] = booksOf(rung).rows('sales');
    const of = { sale: sale!, lines: [], payments: booksOf(rung).rows('payments') };
    const [first, second] = [toEvent(OTHER), toEvent(EVENT)];
    const said = (fix: Fix, stamp: string) => ({ id: stamp, sale: sale!.id, stamp, fix });
    const all = [said(first, 'a'), said(second, 'b'), said(first, 'c')];
    for (const each of [all, all.toReversed()])
      assert.equal(asCorrected(of, each).sale.event, EVENT);
  });

  it('cannot be voided any more while what paid for it is elsewhere', () => {
    const once = corrected(sold(), toEvent(OTHER));
    const now = rows(booksOf(once));
    assert.ok(isShiftOver({ ...now, event: OTHER }, [DRAWER]));
    const both = corrected(sold(), toEvent(OTHER, OTHERS_DRAWER));
    assert.ok(!isShiftOver({ ...rows(booksOf(both)), event: OTHER }, [OTHERS_DRAWER]));
  });

  it('however often, leaves every event at nothing, and all of them together as it was', () => {
    const events: readonly string[] = [EVENT, OTHER, idOf(4, 9)];
    const step = fc.record({
      to: fc.constantFrom(EVENT, OTHER, idOf(4, 9)),
      isWithCash: fc.boolean(),
      way: fc.constantFrom('none', 'tokens', 'cash'),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 5 }), (steps) => {
        let all = sold();
        const part = partIn(all);
        const inAll = (entries: readonly Entry[]): Readonly<Record<string, number>> => {
          const sums: Record<string, number> = {};
          for (const event of events)
            for (const [account, amount] of Object.entries(accountsAt(entries, event))) {
              const name = account.startsWith('drawer:') ? 'cash' : account;
              sums[name] = (sums[name] ?? 0) + amount;
            }
          return Object.fromEntries(Object.entries(sums).filter(([, amount]) => amount !== 0));
        };
        const before = inAll(all);
        for (const { to, isWithCash, way } of steps) {
          if (way !== 'none') {
            const paid = correct(all, way === 'tokens' ? byTokens(part) : inCash(part));
            if (paid.ok) all = [...all, ...writer.append(paid.drafts, 1)];
          }
          const moved = correct(
            all,
            toEvent(to, isWithCash ? idOf(7, 20 + events.indexOf(to)) : null),
          );
          if (moved.ok) all = [...all, ...writer.append(moved.drafts, 1)];
        }
        const paid = correct(all, inCash(part));
        if (paid.ok) all = [...all, ...writer.append(paid.drafts, 1)];
        assert.deepEqual(inAll(all), before);
        for (const event of events) {
          const amounts = Object.values(accountsAt(all, event));
          assert.equal(
            amounts.reduce((a, b) => a + b, 0),
            0,
          );
          assert.equal(accountsAt(all, event)['slip'], undefined);
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe('what was booked wrongly', () => {
  it('may be the way it was paid: drawer and takings by way follow, and back again', () => {
    const rung = sold();
    const part = partIn(rung);
    const once = corrected(rung, byTokens(part));
    assert.equal(balance(once, `drawer:${DRAWER}`), 0);
    assert.equal(balance(once, `owed:${TOKENS}`), 900);
    const books = booksOf(once);
    const ways = books.rows('eventWays').map(({ way, takings, parts }) => [way, takings, parts]);
    assert.deepEqual(
      ways.filter(([, takings]) => takings !== 0),
      [[TOKENS, 900, 1]],
    );
    const drawer = books.rows('drawerSums')[0]!;
    assert.equal(drawer.handed - drawer.change - drawer.back, 0);
    const [paid] = partsAsPaid(books.rows('payments'), books.rows('corrections'));
    assert.deepEqual([paid!.way, paid!.drawer, paid!.wayName], [TOKENS, null, 'Tokens']);
    const twice = corrected(once, inCash(part));
    assert.equal(balance(twice, `drawer:${DRAWER}`), 900);
    assert.equal(balance(twice, `owed:${TOKENS}`), 0);
  });

  it('may be the change: what is missing of the drawer has a name', () => {
    const rung = sold();
    const once = corrected(rung, { is: 'change', part: partIn(rung), change: 600 });
    assert.equal(balance(once, `drawer:${DRAWER}`), 400);
    assert.equal(balance(once, 'drawer-difference'), 500);
    // Looked at again, it was less: by what it was said to be, and back to what was booked.
    const again = corrected(once, { is: 'change', part: partIn(rung), change: 300 });
    assert.equal(balance(again, 'drawer-difference'), 200);
    assert.equal(balance(again, `drawer:${DRAWER}`), 700);
    const asBooked = corrected(again, { is: 'change', part: partIn(rung), change: 100 });
    assert.equal(balance(asBooked, 'drawer-difference'), 0);
    const put = partsPutRight(
      booksOf(asBooked).rows('payments'),
      booksOf(asBooked).rows('corrections'),
    );
    assert.deepEqual(
      put.map(({ moreChange }) => moreChange),
      [500, -300, -200],
    );
    const drawer = booksOf(once).rows('drawerSums')[0]!;
    assert.equal(drawer.handed - drawer.change - drawer.back, 400);
  });

  it('may be the item: stock follows, and the figures by item', () => {
    const books = booksOf(corrected(sold(), other));
    const stock = books.rows('stock').filter(({ place }) => place === EVENT);
    assert.deepEqual(
      stock.filter(({ quantity }) => quantity !== 0).map((row) => [row.item, row.quantity]),
      [[itemId(2), -2000]],
    );
    const takings = books.rows('eventItems').filter((row) => row.takings !== 0);
    assert.deepEqual(
      takings.map((row) => [row.item, row.takings]),
      [[itemId(2), 900]],
    );
    assert.equal(rows(books).lines[0]!.name, 'Thing 2');
  });

  it('may be the customer, or who sold it: the last word counts, whichever comes first', () => {
    const rung = sold();
    const one = corrected(rung, { is: 'customer', customer: customerId(1) });
    const two = corrected(one, { is: 'seller', seller: personId(2) });
    const entries = corrected(two, { is: 'customer', customer: null });
    const now = rows(booksOf(entries));
    assert.equal(now.sale.customer, null);
    assert.ok(now.lines.every(({ seller }) => seller === personId(2)));
    const backwards = rows(booksOf([...entries].reverse()));
    assert.deepEqual(backwards, now);
  });

  const rung = sold();
  const part = partIn(rung);
  const byCard = sold({ way: CARD_WAY, drawer: null, amount: null, card: CARD });
  const back = { lines: [{ line: 0, quantity: 1000, to: 'stock' as const }] };
  const refused: readonly [string, string, () => ReturnType<typeof correct>][] = [
    ['as it stands', 'correct/same', () => correct(rung, inCash(part))],
    ['the same customer', 'correct/same', () => correct(rung, { is: 'customer', customer: null })],
    ['the same seller', 'correct/same', () => correct(rung, { is: 'seller', seller: null })],
    ['the same change', 'correct/same', () => correct(rung, { is: 'change', part, change: 100 })],
    ['the same item', 'correct/same', () => correct(rung, { ...other, item: itemId(1) })],
    ['nobody says why', 'correct/no-reason', () => correct(rung, byTokens(part), { reason: ' ' })],
    ['a card was charged', 'correct/card', () => correct(byCard, byTokens(partIn(byCard)))],
    [
      'no drawer is open',
      'correct/no-drawer',
      () => correct(rung, { ...inCash(part), drawer: null } as Fix),
    ],
    [
      'no cash gave change',
      'correct/no-drawer',
      () => correct(byCard, { is: 'change', part: partIn(byCard), change: 5 }),
    ],
    [
      'some of the line came back',
      'correct/came-back',
      () => correct(rung, other, { returns: [back] }),
    ],
    [
      'some of it came back off who sold it',
      'correct/came-back',
      () => correct(rung, { is: 'seller', seller: personId(2) }, { returns: [back] }),
    ],
    [
      'it was voided',
      'correct/voided',
      () =>
        correct(rung, other, {
          voids: [{ sale: booksOf(rung).rows('sales')[0]!.id, id: 'x' } as never],
        }),
    ],
  ];
  for (const [what, code, attempt] of refused)
    it(`says so: ${what}`, () => {
      const outcome = attempt();
      assert.equal(outcome.ok ? 'put right' : outcome.refusal.code, code);
    });

  it('leaves nothing anywhere once the sale is void, whatever was put right of it before', () => {
    const fixes = fc.array(fc.constantFrom('tokens', 'cash', 'item', 'seller', 'customer'), {
      maxLength: 6,
    });
    fc.assert(
      fc.property(fixes, (all) => {
        let entries = sold();
        const id = partIn(entries);
        for (const each of all) {
          const fix: Fix =
            each === 'tokens'
              ? byTokens(id)
              : each === 'cash'
                ? inCash(id)
                : each === 'item'
                  ? other
                  : each === 'seller'
                    ? { is: 'seller', seller: personId(1) }
                    : { is: 'customer', customer: customerId(2) };
          const outcome = correct(entries, fix);
          if (!outcome.ok) continue;
          const made = writer.append(outcome.drafts, 1);
          for (const entry of knownEntries(made))
            assert.equal(imbalance(journalOf(entry).postings), null);
          entries = [...entries, ...made];
        }
        const now = rows(booksOf(entries));
        const body = voidBody({ ...now, reason: 'no' });
        const [gone] = writer.append(
          [{ id: newId(), kind: 'sale.voided', v: 2, event: EVENT, body }],
          2,
        );
        const books = booksOf([...entries, gone!]);
        for (const { amount, account } of books.rows('eventAccounts'))
          assert.equal(amount, 0, account);
        for (const { quantity } of books.rows('stock')) assert.equal(quantity, 0);
        for (const row of books.rows('eventWays'))
          assert.deepEqual([row.parts, row.takings], [0, 0]);
      }),
      { numRuns: 60 },
    );
  });
});

/** Goods that come back pay for others: in one go, with what is left to pay or to give back. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Books } from '../books/books';
import type { Entry } from '../daybook/entry';
import { journalOf } from '../journal';
import { headOf } from '../journal/accounts';
import { imbalance } from '../journal/posting';
import { sum } from '../money/units';
import { CASH_WAY } from '../payment/ways';
import { keepSlip, openFrom } from '../set-aside/kept-slips';
import { emptySlip, favoursOn, putItem, withoutFavours, type OpenSlip } from '../slip/open-slip';
import { AT_EVENT, CARD, PRICING, VAT } from '../testing/a-sale';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { heldWay } from '../testing/held-drafts';
import { CARD_WAY, customerId, DRAWER, EVENT, item } from '../testing/made-up-business';
import { booksOf, knownEntries } from '../testing/books-of';
import {
  bringBackOn,
  broughtBack,
  isStillLeft,
  leaveOut,
  overOf,
  type BringBack,
} from './exchange';
import { EXCHANGE } from '../payment/methods';
import { givePartsBack } from './give-parts-back';
import type { SoldSale } from './return-figures';
import { ringUp } from './ring-up';
import { ringUpExchange, type RingUpExchange } from './ring-up-exchange';
import { voidSale } from './void-sale';
import { leftOf, takePart, wouldTake, type TakePart } from './take-part';
import { priceSlip } from '../slip/price-slip';

const writer = new DeviceWriter(1);
const { newId } = writer;
let sales = 0;
const here = () => ({
  ...{ newId, pricing: PRICING, taxes: [VAT], event: AT_EVENT, now: 0 },
  ...{ deviceNumber: 1, number: (sales += 1), returnNumber: 1 },
});
function slipOf(...prices: readonly number[]): OpenSlip {
  return prices.reduce<OpenSlip>((slip, price, at) => {
    const put = putItem(slip, item(at + 1, price), 1000, newId());
    assert.ok(put.ok);
    return put.slip;
  }, emptySlip(newId()));
}
const paying = (slip: OpenSlip, more: Partial<TakePart> = {}) =>
  takePart({ ...here(), slip, way: CASH_WAY, drawer: DRAWER, amount: null, ...more });
function sold(...prices: readonly number[]): readonly Entry[] {
  const taken = paying(slipOf(...prices));
  assert.ok(taken.ok && taken.slip === null);
  return writer.append(taken.drafts, 0);
}
const soldIn = (books: Books): SoldSale => ({
  sale: books.rows('sales')[0]!,
  lines: books.rows('saleLines'),
  payments: books.rows('payments'),
  before: books.rows('returns'),
});
const bring = (slip: OpenSlip, books: Books, more: Partial<BringBack> = {}) =>
  bringBackOn({
    ...{ ...soldIn(books), slip, isVoid: false, reason: 'too small', currency: 'GBP' },
    chosen: [{ line: 0, typed: '1', to: 'stock' }],
    ...more,
  });
function withBack(slip: OpenSlip, books: Books): OpenSlip {
  const made = bring(slip, books);
  assert.ok(made.ok);
  return made.slip;
}
const swap = (slip: OpenSlip, more: Partial<RingUpExchange> = {}) =>
  ringUpExchange({
    ...{ ...here(), slip, sold: [] },
    rest: { way: 'cash', drawer: DRAWER, card: null },
    ...more,
  });
const balances = (entries: readonly Entry[]): ReadonlyMap<string, number> => {
  const sums = new Map<string, number>();
  for (const entry of knownEntries(entries)) {
    const { postings } = journalOf(entry);
    assert.equal(imbalance(postings), null);
    for (const { account, amount = 0 } of postings)
      sums.set(account, (sums.get(account) ?? 0) + amount);
  }
  return sums;
};

describe('goods that come back on a slip', () => {
  it('pay before anything else, and the rest is paid by any way, in any number of parts', () => {
    const before = sold(450);
    const slip = withBack(slipOf(1000), booksOf(before));
    const quote = priceSlip(slip, PRICING, [VAT], []);
    assert.equal(broughtBack(slip), 450);
    assert.equal(leftOf(quote, slip), 550);
    const would = wouldTake(quote, slip, 1, CASH_WAY, null);
    assert.equal(typeof would === 'string' ? would : would.clears, 550);
    const first = paying(slip, { way: CARD_WAY, drawer: null, amount: 200, card: CARD });
    assert.ok(first.ok && first.slip !== null);
    assert.deepEqual(
      first.drafts.map(({ kind }) => kind),
      ['payment.taken', 'payment.taken'],
    );
    assert.equal(first.left, 350);
    const last = paying(first.slip);
    assert.ok(last.ok && last.slip === null);
    assert.deepEqual(
      last.drafts.map(({ kind }) => kind),
      ['payment.taken', 'return.made', 'sale.rung'],
    );
    const entries = [...before, ...writer.append([...first.drafts, ...last.drafts], 1)];
    const sums = balances(entries);
    assert.equal(sums.get(`owed:${EXCHANGE}`), 0);
    assert.equal(sums.get(`drawer:${DRAWER}`), 450 + 350);
    for (const [account, amount] of sums)
      if (['slip', 'unexplained'].includes(headOf(account))) assert.equal(amount, 0, account);
    const books = booksOf(entries);
    const [back] = books.rows('returns');
    assert.deepEqual([back!.forSlip, back!.total, back!.number], [slip.id, 450, 'D1-B1']);
    assert.equal(books.rows('eventWays').find(({ way }) => way === EXCHANGE)?.takings ?? 0, 0);
  });

  it('that are worth more, or as much, ring it up at once; the rest is given back', () => {
    const before = sold(1000);
    const more = withBack(slipOf(450), booksOf(before));
    assert.equal(overOf(450, more), 550);
    const over = swap(more);
    assert.ok(over.ok && over.over === 550 && over.total === 450);
    assert.equal(
      balances([...before, ...writer.append(over.drafts, 1)]).get(`drawer:${DRAWER}`),
      450,
    );
    const even = swap(withBack(slipOf(1000), booksOf(before)), { rest: null });
    assert.ok(even.ok && even.over === 0);
    const sums = balances([...before, ...writer.append(even.drafts, 1)]);
    assert.equal(sums.get(`drawer:${DRAWER}`), 1000);
    assert.equal(sums.get(`owed:${EXCHANGE}`), 0);
    // As much as the card has paid and not had back goes to it, by a refund of its own.
    const [part] = booksOf(before).rows('payments');
    const toCard = (charge: number): Partial<RingUpExchange> => ({
      rest: { way: CARD_WAY.id, drawer: null, card: part!.id },
      sold: [
        {
          payments: [{ ...part!, charge, surcharge: 0, tip: 0, change: 0 }],
          refunds: [],
          returns: [],
        },
      ],
    });
    const refunded = swap(more, toCard(550));
    assert.ok(refunded.ok);
    const [refund] = booksOf(writer.append(refunded.drafts, 1)).rows('cardRefunds');
    assert.deepEqual([refund!.payment, refund!.amount], [part!.id, 550]);
    const refused = [
      [swap(more, { rest: null }), 'exchange/no-way-back'],
      [swap(more, { rest: { way: 'cash', drawer: null, card: null } }), 'return/no-drawer'],
      [swap(withBack(slipOf(2000), booksOf(before))), 'exchange/still-to-pay'],
      [swap(slipOf(2000)), 'exchange/nothing-back'],
      [swap(withBack(emptySlip(newId()), booksOf(before))), 'sale/nothing-on-it'],
      [swap(more, toCard(549)), 'return/card-more'],
      [swap(more, { ...toCard(550), sold: [] }), 'return/card-more'],
    ] as const;
    for (const [outcome, code] of refused)
      assert.equal(outcome.ok ? 'rung up' : outcome.refusal.code, code);
    // Nor is it rung up by the way of what comes to nothing: what came back would be forgotten.
    const atOnce = ringUp({ ...here(), slip: more, drawer: DRAWER, handed: 0 });
    for (const paid of [paying(more), atOnce])
      assert.equal(paid.ok ? 'paid' : paid.refusal.code, 'pay/nothing-left');
  });

  it('pay for nothing any more once the money is given back, and can be left out again', () => {
    const before = sold(450);
    const slip = withBack(slipOf(1000), booksOf(before));
    const part = paying(slip, { amount: 100 });
    assert.ok(part.ok && part.slip !== null);
    const parts = [part.part.id];
    const takenBy = new Map<string, string | null>();
    const back = givePartsBack({
      newId,
      slip: part.slip,
      event: EVENT,
      parts,
      reason: '',
      takenBy,
    });
    assert.equal(back.drafts.length, 2);
    assert.equal(back.slip.paid, undefined);
    const sums = balances([...before, ...writer.append([...part.drafts, ...back.drafts], 1)]);
    assert.equal(sums.get(`owed:${EXCHANGE}`), 0);
    const { sale } = slip.back![0]!;
    assert.equal(leaveOut(back.slip, sale).back, undefined);
    // It is then taken as a part of another name: the one that went back stays back.
    const again = paying(back.slip);
    assert.ok(again.ok);
    const ids = [...part.drafts, ...again.drafts].map(({ id }) => id);
    assert.equal(new Set(ids).size, ids.length);
  });

  it('are set aside with the slip, ask for a right, and are left out without it', () => {
    const slip = withBack(slipOf(1000), booksOf(sold(450)));
    const kept = keepSlip({ newId, event: EVENT, slip, sort: 'aside', name: 'Ada', known: [] });
    assert.ok(kept.ok);
    const books = booksOf(writer.append(kept.drafts, 1));
    const taken = openFrom(
      { row: books.rows('slips')[0]!, lines: books.rows('slipLines') },
      undefined,
    );
    assert.deepEqual(taken.back, slip.back);
    assert.equal(favoursOn(slip).length, 1);
    assert.equal(withoutFavours(slip).back, undefined);
  });

  it('are refused with the reason, and the slip stays as it was', () => {
    const books = booksOf(sold(450));
    const slip = slipOf(1000);
    const part = paying(withBack(slip, books), { amount: 100 });
    assert.ok(part.ok && part.slip !== null);
    const refused = [
      [bring(slip, books, { isVoid: true }), 'return/voided'],
      [bring(slip, books, { reason: ' ' }), 'return/no-reason'],
      [bring(slip, books, { chosen: [{ line: 0, typed: '2', to: 'stock' }] }), 'return/more'],
      [bring(withBack(slip, books), books), 'exchange/already'],
      [bring(part.slip, books), 'slip/part-paid'],
    ] as const;
    for (const [outcome, code] of refused)
      assert.equal(outcome.ok ? 'put on' : outcome.refusal.code, code);
    const [back] = withBack(slip, books).back!;
    assert.equal(isStillLeft(soldIn(books), back!), true);
    const gone = { lines: [{ line: 0, quantity: 1000, to: 'stock' }], takes: [], surcharges: [] };
    assert.equal(isStillLeft({ ...soldIn(books), before: [gone as never] }, back!), false);
  });

  it('give the rest as credit of whoever is on the slip, or on the account that had paid', () => {
    const credit = `credit:${customerId(1)}` as const;
    const before = sold(1000);
    const books = booksOf(before);
    const rest = { way: heldWay('credit').id, drawer: null, card: null, account: credit };
    const swapped = swap(withBack(slipOf(300), books), { rest });
    assert.ok(swapped.ok);
    const sums = balances([...before, ...writer.append(swapped.drafts, 1)]);
    assert.equal(sums.get(credit), -700);
    assert.equal(sums.get(`drawer:${DRAWER}`), 1000);
    // Cash had paid: nothing of it goes on a voucher.
    const onVoucher = { ...rest, way: heldWay('voucher').id, account: 'voucher:CARD01' } as const;
    const refused = swap(withBack(slipOf(300), books), {
      rest: onVoucher,
      sold: [{ payments: books.rows('payments'), refunds: [], returns: [] }],
    });
    assert.deepEqual(refused.ok ? 'given' : refused.refusal, {
      ...{ code: 'return/account-more', left: 0 },
    });
  });

  it('cannot be unmade by voiding what they paid for', () => {
    const before = sold(1000);
    const swapped = swap(withBack(slipOf(1000), booksOf(before)), { rest: null });
    assert.ok(swapped.ok);
    const books = booksOf([...before, ...writer.append(swapped.drafts, 1)]);
    const sale = books.rows('sales').find(({ slip }) => slip !== books.rows('sales')[0]!.slip)!;
    const outcome = voidSale({
      ...{ newId, sale, reason: 'no', voids: [], returns: [], event: EVENT, openDrawers: [DRAWER] },
      lines: books.rows('saleLines').filter((line) => line.sale === sale.id),
      payments: books.rows('payments').filter(({ slip }) => slip === sale.slip),
    });
    assert.equal(outcome.ok ? 'voided' : outcome.refusal.code, 'void/exchanged');
  });

  it('leave every account where money and goods say it is, whatever is exchanged for what', () => {
    const price = fc.integer({ min: 1, max: 3000 });
    fc.assert(
      fc.property(
        price,
        price,
        fc.option(fc.integer({ min: 1, max: 3000 })),
        (was, now, amount) => {
          const before = sold(was);
          let slip: OpenSlip | null = withBack(slipOf(now), booksOf(before));
          const drafts = [];
          if (now > was && amount !== null && amount < now - was) {
            const part = paying(slip, { amount });
            assert.ok(part.ok);
            ({ slip } = part);
            drafts.push(...part.drafts);
          }
          assert.ok(slip !== null);
          const rung = now > was ? paying(slip) : swap(slip);
          assert.ok(rung.ok, JSON.stringify(rung));
          drafts.push(...rung.drafts);
          const entries = [...before, ...writer.append(drafts, 1)];
          const sums = balances(entries);
          assert.equal(sums.get(`drawer:${DRAWER}`), now);
          assert.equal(sums.get(`owed:${EXCHANGE}`), 0);
          assert.equal(sums.get('unexplained') ?? 0, 0);
          const books = booksOf(entries);
          assert.equal(sum(books.rows('eventTotals').map(({ takings }) => takings)), now);
          const out = books.rows('stock').filter(({ place }) => place === EVENT);
          assert.deepEqual(
            out.filter(({ quantity }) => quantity !== 0).map(({ quantity }) => quantity),
            [-1000],
          );
        },
      ),
      { numRuns: 80 },
    );
  });
});

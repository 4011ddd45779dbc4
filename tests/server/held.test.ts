/** Vouchers, credit and what customers owe, on the server: nothing is spent twice in silence, and nobody's but their own. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { draft } from '../../src/lib/core/daybook/kinds';
import type { HeldAccount } from '../../src/lib/core/held/held-account';
import { moveHeld, replaceVoucher, setVoucher } from '../../src/lib/core/held/set-held';
import { CASH_WAY } from '../../src/lib/core/payment/ways';
import { makeReturn, type MakeReturn } from '../../src/lib/core/sale/make-return';
import { makeRefund } from '../../src/lib/core/sale/make-refund';
import { emptySlip, putItem, putPaidIn } from '../../src/lib/core/slip/open-slip';
import { PRICING, VAT } from '../../src/lib/core/testing/a-sale';
import { heldWay } from '../../src/lib/core/testing/held-drafts';
import {
  BUSINESS,
  customerId,
  deviceId,
  DRAWER,
  EVENT,
  item,
} from '../../src/lib/core/testing/made-up-business';
import { heldMovesOf } from '../../src/lib/server/books/held-moves';
import { settlingOf } from '../../src/lib/core/settle/settling';
import { settlingRows } from '../../src/lib/server/books/settling-rows';
import { saleDocument } from '../../src/lib/server/books/find-sales';
import { buyer, heldTill, known } from '../support/held-till';
import { HELPER, NOW, OWNER, Pushing } from '../support/pushing';

const desk = new Pushing();
const { push, newId } = desk;
const { sell, paidIn, spent } = heldTill(desk);
let returns = 0;

before(() =>
  desk.begin([
    ...(['customer', 'credit', 'voucher'] as const).map((on) => desk.way(heldWay(on))),
    desk.customer(1, { terms: 14, creditLimit: 500 }),
    desk.customer(2, { terms: 14, creditLimit: null }),
  ]),
);
after(() => desk.t.end());

async function paidInAtEvent(): Promise<number> {
  const [row] = await desk.books.rows(BUSINESS, 'eventPaidIn', { event: EVENT });
  return row?.amount ?? 0;
}

async function standsOn(account: string): Promise<number> {
  const rows = await desk.books.rows(BUSINESS, 'heldSums', { account });
  return rows[0]?.amount ?? 0;
}

describe('a voucher', () => {
  it('is sold for cash and is no turnover; what is spent of it is', async () => {
    assert.deepEqual(await push(paidIn('voucher:CARD01', 500)), []);
    const [sold] = await desk.books.rows(BUSINESS, 'eventTotals', { event: EVENT });
    assert.deepEqual([sold?.takings, sold?.tax, await paidInAtEvent()], [0, 0, 500]);
    assert.equal(await standsOn('voucher:CARD01'), -500);
    assert.deepEqual(await push(spent('voucher', 1, known(-500), { reference: 'card-01' })), []);
    const [now] = await desk.books.rows(BUSINESS, 'eventTotals', { event: EVENT });
    assert.deepEqual([now?.takings, now?.tax, await paidInAtEvent()], [210, 35, 500]);
    assert.equal(await standsOn('voucher:CARD01'), -290);
  });

  it('beside goods takes no part in discounts, service, tax and two prices', async () => {
    const put = putItem(emptySlip(newId()), item(1, 105), 3000, 'a');
    assert.ok(put.ok);
    const line = { account: 'voucher:CARD08' as const, name: 'Voucher', detail: '', amount: 1000 };
    const both = putPaidIn(put.slip, line, 'in');
    assert.ok(both.ok);
    const slip = {
      ...both.slip,
      discount: { percent: '10' },
      service: { percent: '10', taxes: [VAT.id] },
    };
    const drafts = sell(slip, 1, { way: CASH_WAY });
    assert.deepEqual(await push(drafts), []);
    const [sale] = drafts.flatMap(({ kind, body }) =>
      kind === 'sale.rung' ? [body as { total: number; lines: { total: number }[] }] : [],
    );
    // 3.15 less a tenth of it, and a tenth on top of that; the voucher as it is.
    assert.deepEqual([sale!.total, sale!.lines[1]!.total], [315 - 32 + 28 + 1000, 1000]);
    assert.equal(await standsOn('voucher:CARD08'), -1000);
  });

  it('that is spent on two devices out of touch is taken twice, and the second is found', async () => {
    assert.deepEqual(await push(paidIn('voucher:CARD02', 300)), []);
    const [one, two] = [1, 2].map((n) => spent('voucher', n, known(-300), { reference: 'CARD02' }));
    assert.deepEqual(await push(one!), []);
    assert.deepEqual(await push(two!, OWNER, 2), ['held/overspent']);
    assert.equal(await standsOn('voucher:CARD02'), 120);
  });

  it('of which nobody was sold any is found', async () => {
    const made = spent('voucher', 1, known(-300), { reference: 'MADEUP1' });
    assert.deepEqual(await push(made), ['held/overspent']);
  });

  it('of a number that was sold before is found', async () => {
    assert.deepEqual(await push(paidIn('voucher:CARD03', 300)), []);
    assert.deepEqual(await push(paidIn('voucher:CARD03', 300, 2), OWNER, 2), [
      'sale/voucher-again',
    ]);
  });

  it('is blocked by whoever may, spent by nobody then, and what is left goes on a fresh one', async () => {
    assert.deepEqual(await push(paidIn('voucher:CARD04', 300)), []);
    const block = setVoucher({
      ...{ newId, number: 'CARD04', isBlocked: true, until: '', reason: 'lost' },
    });
    assert.ok(block.ok);
    assert.deepEqual(await push(block.drafts, HELPER), ['right/missing']);
    const facts = known(-300);
    const anew = { newId, number: 'CARD04', fresh: 'CARD05', facts, reason: 'lost' };
    const replaced = replaceVoucher(anew);
    assert.ok(replaced.ok);
    assert.deepEqual(await push(replaced.drafts), []);
    const late = spent('voucher', 2, facts, { reference: 'CARD04' });
    assert.deepEqual(await push(late, OWNER, 2, NOW + 60_000), ['payment/voucher']);
    assert.deepEqual(await push(spent('voucher', 1, facts, { reference: 'CARD05' })), []);
    assert.equal(await standsOn('voucher:CARD05'), -90);
    const unknown = setVoucher({
      ...{ newId, number: 'NOSUCH', isBlocked: true, until: '', reason: 'lost' },
    });
    assert.ok(unknown.ok);
    assert.deepEqual(await push(unknown.drafts), ['voucher/unknown']);
  });

  it('that ran out is written off whole by whoever may, and not before', async () => {
    assert.deepEqual(await push(paidIn('voucher:CARDOLD', 300)), []);
    const lapsed = (amount: number, number = 'CARDOLD'): Draft =>
      draft('voucher.lapsed', newId(), null, { number, amount });
    assert.deepEqual(await push([lapsed(300)]), ['voucher/not-over']);
    const until = setVoucher({
      ...{ newId, number: 'CARDOLD', isBlocked: false, until: '2026-11-01', reason: 'as printed' },
    });
    assert.ok(until.ok);
    assert.deepEqual(await push(until.drafts), []);
    assert.deepEqual(await push([lapsed(300)], HELPER), ['right/missing']);
    assert.deepEqual(await push([lapsed(200)]), ['voucher/not-over']);
    assert.deepEqual(await push([lapsed(300, 'NOSUCH')]), ['voucher/unknown']);
    assert.equal(await standsOn('voucher:CARDOLD'), -300);
    assert.deepEqual(await push([lapsed(300)]), []);
    assert.equal(await standsOn('voucher:CARDOLD'), 0);
    // Twice is once.
    assert.deepEqual(await push([lapsed(300)]), ['voucher/not-over']);
  });

  it('that was spent cannot be given back as if it had not been', async () => {
    const sold = paidIn('voucher:CARD06', 300);
    assert.deepEqual(await push(sold), []);
    assert.deepEqual(await push(spent('voucher', 1, known(-300), { reference: 'CARD06' })), []);
    const sale = sold.find(({ kind }) => kind === 'sale.rung')!.id;
    const back = await takenBack(sale, { way: 'cash', drawer: DRAWER });
    assert.deepEqual(await push(back), ['held/overspent']);
  });
});

describe('what a customer owes', () => {
  it('is owed within what was agreed, beyond it by right alone, and paid in later', async () => {
    const on = { buys: 1 };
    assert.deepEqual(await push(spent('customer', 1, known(0, 500), on), HELPER), []);
    assert.deepEqual(await push(spent('customer', 1, known(210, 500), on), HELPER), []);
    assert.equal(await standsOn(`customer:${customerId(1)}`), 420);
    // A device that heard of none of it.
    const third = spent('customer', 2, known(0, 500), on);
    assert.deepEqual(await push(third, HELPER, 2), ['payment/over-limit']);
    const let_ = spent('customer', 2, known(630, 500), { ...on, mayOweMore: true });
    assert.deepEqual(await push(let_, HELPER, 2), ['right/missing']);
    const paid = paidIn(`customer:${customerId(1)}`, 840, 1, 1);
    assert.deepEqual(await push(paid, HELPER), []);
    assert.equal(await standsOn(`customer:${customerId(1)}`), 0);
  });

  it('is their own: another’s account, or one that nobody has, is found', async () => {
    const made = spent('customer', 1, known(0), { buys: 2 });
    const forged = made.map((each) =>
      each.kind === 'payment.taken'
        ? { ...each, body: { ...(each.body as object), customer: customerId(1) } }
        : each,
    );
    assert.deepEqual(await push(forged), ['payment/account']);
    const nobodys = paidIn(`credit:${customerId(9)}`, 100);
    assert.deepEqual(await push(nobodys), ['sale/paid-in']);
  });

  it('pays the debt that was chosen, where that was bought on the account', async () => {
    const bought = spent('customer', 1, known(0), { buys: 2 });
    assert.deepEqual(await push(bought), []);
    const sale = bought.find(({ kind }) => kind === 'sale.rung')!.id;
    const payFor = (pays: string) => {
      const line = { account: `customer:${customerId(2)}`, name: 'Paid', detail: '' } as const;
      const put = putPaidIn(emptySlip(newId()), { ...line, amount: 100, pays }, 'in');
      assert.ok(put.ok);
      return sell({ ...put.slip, customer: buyer(2) }, 1, { way: CASH_WAY });
    };
    assert.deepEqual(await push(payFor(sale)), []);
    const { moves } = await heldMovesOf(desk.books, BUSINESS, [`customer:${customerId(2)}`]);
    assert.deepEqual(
      moves.flatMap(({ pays, amount }) => (pays === sale ? amount : [])),
      [-100],
    );
    assert.deepEqual(await push(payFor(newId())), ['sale/paid-in']);
    // A sale that somebody else owes for is not theirs to pay.
    const others = spent('customer', 1, known(0), { buys: 1 });
    assert.deepEqual(await push(others), []);
    const theirs = others.find(({ kind }) => kind === 'sale.rung')!.id;
    assert.deepEqual(await push(payFor(theirs)), ['sale/paid-in']);
  });
});

describe('credit', () => {
  it('is what goods that came back come to, is spent like money, and pays what is owed', async () => {
    const sold = spent('customer', 1, known(0), { buys: 2 });
    assert.deepEqual(await push(sold), []);
    const sale = sold.find(({ kind }) => kind === 'sale.rung')!.id;
    const account = `credit:${customerId(2)}` as const;
    const back = { way: heldWay('credit').id, drawer: null, account };
    assert.deepEqual(await push(await takenBack(sale, { ...back, typed: '1' })), []);
    assert.equal(await standsOn(account), -105);
    // Its sale is the document that tells of it.
    const { moves } = await heldMovesOf(desk.books, BUSINESS, [account]);
    assert.deepEqual(
      moves.map(({ kind, sale: of }) => [kind, of]),
      [['return.made', sale]],
    );
    const move = { newId, from: account, to: `customer:${customerId(2)}` as const };
    const paid = moveHeld({ ...move, balance: -105, amount: 100, reason: 'asked for' });
    assert.ok(paid.ok);
    const before = await standsOn(`customer:${customerId(2)}`);
    assert.deepEqual(await push(paid.drafts, HELPER), ['right/missing']);
    const again = moveHeld({ ...move, balance: -105, amount: 100, reason: 'asked for' });
    assert.ok(again.ok);
    assert.deepEqual(await push(again.drafts), ['held/overspent']);
    assert.equal(await standsOn(account), 95);
    assert.equal(await standsOn(`customer:${customerId(2)}`), before - 200);
  });

  it('is made of what was paid too much, and of no debt', async () => {
    const [from, to] = [`customer:${customerId(2)}`, `credit:${customerId(2)}`] as const;
    const moved = moveHeld({ newId, from, to, balance: -700, amount: null, reason: 'too much' });
    assert.ok(moved.ok);
    assert.deepEqual(await push(moved.drafts), ['held/overspent']);
  });

  it('goes on no account that had not paid, and no more of it than that had', async () => {
    const sold = paidIn(`credit:${customerId(2)}`, 500, 1, 2);
    assert.deepEqual(await push(sold), []);
    const put = putItem(emptySlip(newId()), item(1, 105), 2000, 'a');
    assert.ok(put.ok);
    const byCash = sell({ ...put.slip, customer: buyer(2) }, 1, { way: CASH_WAY });
    assert.deepEqual(await push(byCash), []);
    const sale = byCash.find(({ kind }) => kind === 'sale.rung')!.id;
    const toDebt = { way: heldWay('customer').id, drawer: null };
    const off = await takenBack(sale, { ...toDebt, account: `credit:${customerId(2)}` });
    assert.deepEqual(await push(off), ['return/account']);
    const noAccount = await takenBack(sale, { ...toDebt, account: null, typed: '1' });
    assert.deepEqual(await push(noAccount), ['return/account']);
  });
});

describe('the evening after it', () => {
  it('pays nobody for what was paid in, and calls none of it an unlisted sale', async () => {
    const pay = [OWNER, HELPER].map((person) =>
      draft('staff.pay', newId(), null, { person, wage: 0, commission: '5' }),
    );
    assert.deepEqual(await push(pay), []);
    const rows = await settlingRows(desk.t.database, desk.books, BUSINESS, EVENT, NOW);
    const [totals] = await desk.books.rows(BUSINESS, 'eventTotals', { event: EVENT });
    assert.ok(rows !== null && totals !== undefined);
    assert.ok((await paidInAtEvent()) > 0);
    const sold = rows.sellers.reduce((all, { net }) => all + net, 0);
    const sales = await desk.books.rows(BUSINESS, 'sales', { event: EVENT });
    const service = sales.reduce((all, row) => all + row.service - row.serviceTax, 0);
    // Service is nobody's; tax is rounded once for a sale, and of what comes back once more.
    assert.ok(Math.abs(sold + service - (totals.takings - totals.tax)) <= returns, String(sold));
    assert.deepEqual(rows.unlisted, []);
    // No money is awaited for any of it, but for the return that named no account.
    const { toCome, balances } = settlingOf(rows);
    assert.deepEqual(
      toCome.map(({ open }) => open),
      [-105],
    );
    assert.ok(balances.some(({ account }) => account === 'voucher:CARD01'));
  });
});

describe('what moved on an account', () => {
  it('is told with the sale that it is of, to the business whose it is', async () => {
    const sold = paidIn('voucher:CARD07', 500);
    const number = `D1-${String((sold.find(({ kind }) => kind === 'sale.rung')!.body as { number: number }).number)}`;
    assert.deepEqual(await push(sold), []);
    const spend = spent('voucher', 1, known(-500), { reference: 'CARD07' });
    assert.deepEqual(await push(spend), []);
    const { balances, moves } = await heldMovesOf(desk.books, BUSINESS, [
      'voucher:CARD07',
      'voucher:NOSUCH',
    ]);
    assert.deepEqual(balances, [-290, 0]);
    assert.deepEqual(moves.map(({ kind, amount }) => [kind, amount]).sort(), [
      ['payment.taken', 210],
      ['sale.rung', -500],
    ]);
    const paid = moves.find(({ kind }) => kind === 'sale.rung')!;
    assert.equal(paid.number, number);
    assert.ok(moves.every(({ sale }) => sale !== ''));
    const elsewhere = await heldMovesOf(desk.books, deviceId(9), ['voucher:CARD07']);
    assert.deepEqual(elsewhere, { balances: [0], moves: [] });
  });
});

async function takenBack(
  sale: string,
  { typed = '1', ...more }: Pick<MakeReturn, 'way' | 'drawer' | 'account'> & { typed?: string },
): Promise<readonly Draft[]> {
  const found = await saleDocument(desk.t.database, desk.books, BUSINESS, sale);
  assert.ok(found !== null);
  const { lines, payments, returns: before, refunds, voids, undone } = found;
  const outcome = makeReturn({
    ...{ newId, sale: found.sale, lines, payments, before, refunds, voids, undone },
    chosen: [{ line: 0, typed, to: 'stock' }],
    ...{ reason: 'it wilted', card: null, cashStep: 1, currency: 'GBP' },
    ...{ deviceNumber: 1, number: (returns += 1), event: EVENT, place: EVENT },
    ...{ day: '2026-11-22', hour: 10, ...more },
  });
  assert.ok(outcome.ok, JSON.stringify(outcome));
  return outcome.drafts;
}

describe('money that would go back without a sale', () => {
  it('becomes the credit of a customer that there is, and of nobody else', async () => {
    const account = `credit:${customerId(2)}` as const;
    const balance = async (): Promise<number> =>
      (await desk.books.rows(BUSINESS, 'heldSums', { account }))[0]?.amount ?? 0;
    const before = await balance();
    const back = (onto: HeldAccount): readonly Draft[] => {
      const made = makeRefund({
        ...{ newId, pricing: PRICING, taxes: [VAT], now: NOW, timeZone: 'Europe/London' },
        lines: [{ item: item(1, 450), quantity: '1', each: '4.50', to: 'stock' }],
        ...{ event: { id: EVENT, swaps: [] }, saleNumber: '', reason: 'from the spring' },
        ...{ way: heldWay('credit').id, drawer: null, account: onto, reference: '' },
        ...{ deviceNumber: 1, number: (returns += 1), before: 0, most: null },
      });
      assert.ok(made.ok);
      return made.drafts;
    };
    assert.deepEqual(await push(back(account)), []);
    assert.equal(await balance(), before - 450);
    assert.deepEqual(await push(back(`credit:${newId()}`)), ['return/account']);
  });
});

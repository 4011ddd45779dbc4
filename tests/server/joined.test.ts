/** Records of customers that are of one person, on the server: what one has the other can spend, and nothing twice. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { eraseCustomer } from '../../src/lib/core/customer/set-customer';
import { joinCustomers, takeApart } from '../../src/lib/core/customer/join-customers';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { draft } from '../../src/lib/core/daybook/kinds';
import { moveHeld } from '../../src/lib/core/held/set-held';
import { invoiceOwn } from '../../src/lib/core/invoice/make-invoice';
import { remind } from '../../src/lib/core/invoice/reminders';
import { CASH_WAY } from '../../src/lib/core/payment/ways';
import { movePoints } from '../../src/lib/core/points/set-points';
import { emptySlip, putItem, putPaidIn } from '../../src/lib/core/slip/open-slip';
import { CARD, VAT } from '../../src/lib/core/testing/a-sale';
import { heldWay } from '../../src/lib/core/testing/held-drafts';
import { INVOICING, saidOf } from '../../src/lib/core/testing/invoice-drafts';
import {
  BUSINESS,
  CARD_WAY,
  customerId,
  deviceId,
  item,
} from '../../src/lib/core/testing/made-up-business';
import { RULE } from '../../src/lib/core/testing/points-drafts';
import { correctSale } from '../../src/lib/core/sale/correct-sale';
import { customerDocuments } from '../../src/lib/server/books/customer-documents';
import { findSales, saleDocument } from '../../src/lib/server/books/find-sales';
import { heldMovesOf } from '../../src/lib/server/books/held-moves';
import { numberInvoice } from '../../src/lib/server/invoices/number-invoice';
import { reminderFor } from '../../src/lib/server/invoices/reminder-letter';
import { buyer, heldTill, known } from '../support/held-till';
import { HELPER, NOW, OWNER, Pushing } from '../support/pushing';

const desk = new Pushing();
const { push, newId } = desk;
const { sell, paidIn, spent } = heldTill(desk);
const STEP = { days: 1, subject: 'Invoice {number}', text: '{left} is overdue.' };

before(() =>
  desk.begin([
    ...(['customer', 'credit'] as const).map((on) => desk.way(heldWay(on))),
    draft('business.points', newId(), null, RULE),
    draft('business.invoicing', newId(), null, INVOICING),
    draft('business.reminders', newId(), null, { steps: [STEP] }),
    ...Array.from({ length: 30 }, (_, n) => desk.customer(n + 1, { terms: 14, creditLimit: 500 })),
  ]),
);
after(() => desk.t.end());

const rows = async () => await desk.books.rows(BUSINESS, 'customers', {});
const join = async (customer: number, into: number): Promise<readonly Draft[]> => {
  const [from, to] = [customerId(customer), customerId(into)];
  const customers = await rows();
  const made = joinCustomers({
    ...{ newId, newSalt: () => 'sixteen-letters-', customer: from, into: to, customers },
  });
  assert.ok(made.ok, JSON.stringify(made));
  return made.drafts;
};
const joinedAs = (customer: number, into: number | null): Draft =>
  draft('customer.joined', newId(), null, {
    customer: customerId(customer),
    into: into === null ? null : customerId(into),
  });
const stands = async (account: string): Promise<number> =>
  (await heldMovesOf(desk.books, BUSINESS, [account])).balances[0]!;

describe('two records that are joined', () => {
  it('have what either has: credit of both is spent, and no more than both', async () => {
    const [a, b] = [1, 2].map((n) => `credit:${customerId(n)}` as const) as [
      `credit:${string}`,
      `credit:${string}`,
    ];
    assert.deepEqual(await push([...paidIn(a, 130), ...paidIn(b, 100)]), []);
    assert.deepEqual(await push(spent('credit', 1, known(-500), { buys: 2 }), HELPER), [
      'held/overspent',
    ]);
    // That had taken 110 more than there was.
    assert.deepEqual(await push(paidIn(b, 110)), []);
    assert.deepEqual(await push([...paidIn(b, 100), ...(await join(1, 2))]), []);
    assert.equal(await stands(b), -230);
    const { moves } = await heldMovesOf(desk.books, BUSINESS, [b]);
    assert.deepEqual([...new Set(moves.map(({ account }) => account))], [b]);
    // Asked for by both names at once, each stands at what they have together, and nothing moved twice.
    const twice = await heldMovesOf(desk.books, BUSINESS, [a, b]);
    assert.deepEqual([twice.balances, twice.moves.length], [[-230, -230], moves.length]);
    assert.deepEqual(await push(spent('credit', 1, known(-500), { buys: 2 }), HELPER), []);
    // A device that has not heard of it spends the other's.
    assert.deepEqual(await push(spent('credit', 2, known(-500), { buys: 1 }), HELPER, 2), [
      'held/overspent',
    ]);
    assert.equal(await stands(b), 190);
  });

  it('owe together what was agreed with either, and what is paid on one pays for the other', async () => {
    const [a, b] = [3, 4] as const;
    assert.deepEqual(await push(spent('customer', 1, known(0, 500), { buys: a })), []);
    assert.deepEqual(await push(spent('customer', 1, known(0, 500), { buys: b })), []);
    const [sale] = await desk.books.rows(BUSINESS, 'sales', { customer: customerId(a) });
    const paysForIt = (): readonly Draft[] => {
      const account = `customer:${customerId(b)}` as const;
      const line = { account, name: 'Paid in', detail: '', amount: 100, pays: sale!.id };
      const put = putPaidIn(emptySlip(newId()), line, 'in');
      assert.ok(put.ok);
      return sell({ ...put.slip, customer: buyer(b) }, 1, { way: CASH_WAY });
    };
    assert.deepEqual(await push(paysForIt()), ['sale/paid-in']);
    assert.deepEqual(await push(await join(a, b)), []);
    assert.equal(await stands(`customer:${customerId(b)}`), 320);
    const more = spent('customer', 1, known(0, 500), { buys: b });
    assert.deepEqual(await push(more), ['payment/over-limit']);
    assert.deepEqual(await push(paysForIt()), []);
  });

  it('are found by the name of either, with what was sold to both', async () => {
    const named = async (words: string): Promise<number> =>
      (await findSales(desk.t.database, desk.books, BUSINESS, words)).length;
    // Two sales to each, as they are above; of 4 alone it is not asked, since 14 and 24 are called so as well.
    const all = await desk.books.rows(BUSINESS, 'sales', { customer: [3, 4].map(customerId) });
    assert.ok(all.length > 2);
    assert.equal(await named('Third Woman'), 0);
    const { body, ...rest } = desk.customer(3);
    const apart = { ...rest.private!, data: { ...rest.private!.data, name: 'Third Woman' } };
    assert.deepEqual(await push([{ ...rest, body, private: apart }]), []);
    assert.equal(await named('Third Woman'), all.length);
    // What was rung up for nobody and was for one of them in truth is found by the other's name.
    const put = putItem(emptySlip(newId()), item(1, 105), 10_000, 'a');
    assert.ok(put.ok);
    const drafts = sell(put.slip, 1, { way: CASH_WAY });
    assert.deepEqual(await push(drafts), []);
    const { id } = drafts.find(({ kind }) => kind === 'sale.rung')!;
    const sold = (await saleDocument(desk.t.database, desk.books, BUSINESS, id))!;
    const fix = { is: 'customer', customer: customerId(4) } as const;
    const made = correctSale({ ...sold, newId, fix, reason: 'it was on their list' });
    assert.ok(made.ok);
    assert.deepEqual(await push(made.drafts), []);
    assert.equal(await named('Third Woman'), all.length + 1);
  });

  it('have the discount that was agreed with either', async () => {
    const { body, ...rest } = desk.customer(6);
    const granted = { ...rest, body: { ...(body as object), discount: '10' } } as Draft;
    assert.deepEqual(await push([granted]), []);
    const put = putItem(emptySlip(newId()), item(1, 105), 10_000, 'a');
    assert.ok(put.ok);
    const sold = (): readonly Draft[] => {
      const customer = { ...buyer(5), discount: '10' };
      return sell({ ...put.slip, id: newId(), customer }, 1, { way: CASH_WAY });
    };
    assert.deepEqual(await push(sold()), ['sale/standing']);
    assert.deepEqual(await push(await join(5, 6)), []);
    assert.deepEqual(await push(sold()), []);
  });

  it('have points together, given and taken', async () => {
    const give = (n: number, typed: string, has = 1000): readonly Draft[] => {
      const customer = customerId(n);
      const made = movePoints({ newId, customer, typed, reason: 'as agreed', has });
      assert.ok(made.ok);
      return made.drafts;
    };
    assert.deepEqual(await push([...give(7, '30'), ...give(8, '50')]), []);
    assert.deepEqual(await push(give(8, '-80')), ['points/less']);
    assert.deepEqual(await push(await join(7, 8)), []);
    assert.equal(await stands(`points:${customerId(8)}`), -80);
    assert.deepEqual(await push(give(8, '-80')), []);
    assert.deepEqual(await push(give(7, '-1')), ['points/less']);
  });

  it('are reminded of nothing that was paid on the other', async () => {
    const today = new Date(NOW).toISOString().slice(0, 10);
    const said = saidOf(newId, 9, { due: today });
    const made = invoiceOwn({
      ...said,
      lines: [{ name: 'Wreaths', quantity: '1', price: '12.00', taxes: [VAT.id] }],
      ...{ currency: 'GBP', pricesIncludeTax: true, taxRounding: 'sale', taxes: [VAT] },
    });
    assert.ok(made.ok, JSON.stringify(made));
    assert.deepEqual(await push(made.drafts), []);
    const invoice = made.drafts[0]!.id;
    const given = await numberInvoice(desk.t.database, desk.books, BUSINESS, invoice);
    const numbered = draft('invoice.numbered', newId(), null, { invoice, ...given! });
    assert.deepEqual(await push([numbered], null), []);
    const later = NOW + 3 * 86_400_000;
    const asked = remind(newId, () => 'sixteen-letters-', [
      {
        invoice: { id: invoice, customer: customerId(9) },
        ...{ next: { step: 0, words: STEP }, to: 'wren@green.example' },
      },
    ]);
    assert.deepEqual(await push(asked, OWNER, 1, later), []);
    const [{ id } = { id: '' }] = await desk.books.rows(BUSINESS, 'reminders', { invoice });
    const letter = async () => await reminderFor(desk.books, BUSINESS, id, later);
    const first = await letter();
    assert.ok(first !== null && first !== 'not needed', 'there is no letter');
    assert.match(first.text, /12\.00/);
    assert.deepEqual(await push(paidIn(`customer:${customerId(10)}`, 1200)), []);
    assert.notEqual(await letter(), 'not needed');
    assert.deepEqual(await push(await join(9, 10)), []);
    assert.equal(await letter(), 'not needed');
  });

  it('taken apart, each has what was said on their record', async () => {
    const [a, b] = [11, 12].map((n) => `credit:${customerId(n)}` as const);
    assert.deepEqual(await push([...paidIn(a!, 300), ...paidIn(b!, 500)]), []);
    assert.deepEqual(await push(await join(11, 12)), []);
    const move = (from: `credit:${string}`, amount: number) => {
      const to = `customer:${from.slice(7)}` as const;
      return moveHeld({ newId, from, to, balance: -800, amount, reason: 'for a debt' });
    };
    const made = move(b!, 700);
    assert.ok(made.ok);
    assert.deepEqual(await push(made.drafts), []);
    assert.deepEqual(await push(takeApart(newId, customerId(11)).drafts), []);
    assert.deepEqual([await stands(a!), await stands(b!)], [-300, 200]);
  });

  it('have what was sold to either in truth, signed by either and moved on either, for whoever asks for it', async () => {
    const asked = async (n: number, business = BUSINESS) =>
      await customerDocuments(desk.books, business, customerId(n));
    const sold = (n: number | null): readonly Draft[] => {
      const put = putItem(emptySlip(newId()), item(1, 105), 1000, 'a');
      assert.ok(put.ok);
      const slip = n === null ? put.slip : { ...put.slip, customer: buyer(n) };
      return sell(slip, 1, { way: CASH_WAY });
    };
    const rung = (drafts: readonly Draft[]): string =>
      drafts.find(({ kind }) => kind === 'sale.rung')!.id;
    const inTruth = async (id: string, customer: string | null): Promise<readonly Draft[]> => {
      const sale = (await saleDocument(desk.t.database, desk.books, BUSINESS, id))!;
      const fix = { is: 'customer', customer } as const;
      const made = correctSale({ ...sale, newId, fix, reason: 'the wrong name' });
      assert.ok(made.ok);
      return made.drafts;
    };
    const [own, others, nobodys, wrong] = [sold(15), sold(16), sold(null), sold(16)] as const;
    const paid = paidIn(`credit:${customerId(15)}`, 300);
    const put = putItem(emptySlip(newId()), item(1, 105), 1000, 'a');
    assert.ok(put.ok);
    const signed = sell({ ...put.slip, customer: buyer(16) }, 1, {
      ...{ way: CARD_WAY, card: { ...CARD, entry: 'swipe', isSigned: true } },
      payer: { signature: [[12, 34, 56, 78]], name: '', salt: 'sixteen-letters-' },
    });
    const way = desk.way({ ...CARD_WAY, method: 'card' });
    assert.deepEqual(await push([way, ...own, ...others, ...nobodys, ...wrong, ...paid]), []);
    // Nobody was asked about the card here: it counts, and is doubted.
    assert.deepEqual(await push(signed), ['card/not-asked']);
    assert.deepEqual(await push(await inTruth(rung(nobodys), customerId(15))), []);
    assert.deepEqual(await push(await inTruth(rung(wrong), null)), []);
    const ids = async (n: number) => (await asked(n)).sales.map(({ id }) => id).sort();
    assert.deepEqual(await ids(15), [rung(own), rung(nobodys)].sort());
    assert.deepEqual(await ids(16), [rung(others), rung(signed)].sort());
    assert.deepEqual(await push(await join(15, 16)), []);
    const theirs = [own, others, nobodys, signed].map(rung).sort();
    assert.deepEqual([await ids(15), await ids(16)], [theirs, theirs]);
    const { payers, moves } = await asked(16);
    assert.deepEqual(
      payers.map(({ strokes }) => strokes),
      [[[12, 34, 56, 78]]],
    );
    assert.deepEqual(
      moves.map(({ account, amount }) => [account, amount]),
      [[`credit:${customerId(16)}`, -300]],
    );
    // Of another business there is nobody by that id; of somebody who was forgotten nothing is said.
    const nothing = { sales: [], payers: [], moves: [] };
    assert.deepEqual(await asked(16, deviceId(9)), nothing);
    assert.deepEqual(await push(eraseCustomer(newId, [15, 16].map(customerId)).drafts), []);
    assert.deepEqual([await asked(15), await asked(16)], [nothing, nothing]);
  });

  it('are forgotten together', async () => {
    assert.deepEqual(await push(await join(13, 14)), []);
    assert.deepEqual(await push(eraseCustomer(newId, [14, 13].map(customerId)).drafts), []);
    const theirs = (await rows()).filter(({ id }) => [13, 14].map(customerId).includes(id));
    assert.deepEqual(
      theirs.map(({ isErased }) => isErased),
      [true, true],
    );
  });
});

describe('a join that changes nothing', () => {
  it('is one by somebody who may not, of nobody known, of somebody forgotten, or in a circle', async () => {
    assert.deepEqual(await push([joinedAs(21, 22)], HELPER), ['right/missing']);
    assert.deepEqual(await push([joinedAs(21, 22)], null), ['right/missing']);
    assert.deepEqual(await push([joinedAs(21, 99)]), ['customer/unknown']);
    assert.deepEqual(await push([joinedAs(99, 21)]), ['customer/unknown']);
    assert.deepEqual(await push([joinedAs(21, 21)]), ['body/wrong']);
    assert.deepEqual(await push(eraseCustomer(newId, [customerId(23)]).drafts), []);
    assert.deepEqual(await push([joinedAs(23, 21)]), ['customer/forgotten']);
    assert.deepEqual(await push([joinedAs(21, 23)]), ['customer/forgotten']);
    // In one push, and across two: the second closes the circle.
    assert.deepEqual(await push([joinedAs(24, 25), joinedAs(25, 24)]), ['customer/circle']);
    assert.deepEqual(await push([joinedAs(25, 26)], OWNER, 2), []);
    assert.deepEqual(await push([joinedAs(26, 24)]), ['customer/circle']);
    // Said again it is as it was.
    assert.deepEqual(await push([joinedAs(24, 25)]), []);
    const joined = (await rows()).flatMap(({ id, joinedInto }) =>
      joinedInto !== null && [21, 23, 24, 25, 26].map(customerId).includes(id)
        ? [[id, joinedInto]]
        : [],
    );
    assert.deepEqual(joined, [
      [customerId(24), customerId(25)],
      [customerId(25), customerId(26)],
    ]);
  });

  it('another business has none of it', async () => {
    const account = `credit:${customerId(2)}`;
    const elsewhere = await heldMovesOf(desk.books, deviceId(9), [account]);
    assert.deepEqual(elsewhere, { balances: [0], moves: [] });
  });
});

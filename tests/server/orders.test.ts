/** Orders of customers on the server: sold as they were agreed and as often, and nobody else's deposit pays for them. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { draft } from '../../src/lib/core/daybook/kinds';
import { heldTotals } from '../../src/lib/core/held/held-account';
import type { HeldFacts } from '../../src/lib/core/held/spend';
import { handedOf } from '../../src/lib/core/order/agreed';
import { handOver } from '../../src/lib/core/order/hand-over';
import { keepOrder, stageOrder, type KeepOrder } from '../../src/lib/core/order/set-order';
import { CASH_WAY, type WayToPay } from '../../src/lib/core/payment/ways';
import { takePart } from '../../src/lib/core/sale/take-part';
import { settlingOf } from '../../src/lib/core/settle/settling';
import {
  emptySlip,
  putItem,
  putPaidIn,
  setPrice,
  setQuantity,
  type OpenSlip,
} from '../../src/lib/core/slip/open-slip';
import { AT_EVENT, PRICING, VAT } from '../../src/lib/core/testing/a-sale';
import { voided } from '../../src/lib/core/testing/put-right-drafts';
import { DEPOSIT_WAY } from '../../src/lib/core/testing/order-drafts';
import {
  BUSINESS,
  CARD_WAY,
  customerId,
  DRAWER,
  EVENT,
  item,
} from '../../src/lib/core/testing/made-up-business';
import { settlingRows } from '../../src/lib/server/books/settling-rows';
import { HELPER, NOW, OWNER, Pushing } from '../support/pushing';

const desk = new Pushing();
const { push, newId, writers } = desk;

before(() =>
  desk.begin([desk.way(DEPOSIT_WAY), desk.way(CARD_WAY), desk.customer(1), desk.customer(2)]),
);
after(() => desk.t.end());

const buyer = (n: number) => ({ id: customerId(n), name: 'Wren', discount: '0' });
/** As the founded business has it. */
const goods = (): OpenSlip => {
  const put = putItem(emptySlip(newId()), item(1, 450), 4000, newId());
  assert.ok(put.ok);
  return { ...put.slip, customer: buyer(1) };
};

/** @returns The order's id, having said so. */
async function kept(
  said: Partial<KeepOrder> = {},
  by: string | null = OWNER,
): Promise<{ readonly id: string; readonly codes: readonly string[] }> {
  const made = keepOrder({
    ...{
      newId,
      slip: goods(),
      pricing: PRICING,
      taxes: [VAT],
      swaps: [],
      number: `K1-${newId().slice(-4)}`,
    },
    ...{
      sort: 'kept',
      deposit: 0,
      collectAt: EVENT,
      place: 'base',
      until: '',
      note: '',
      salt: 'sixteen-letters-',
    },
    ...{ stage: 'ready', today: '2026-11-22', event: EVENT },
    ...said,
  });
  assert.ok(made.ok, JSON.stringify(made));
  return { id: made.id, codes: await push(made.drafts, by) };
}

const known = (balance: number): HeldFacts => ({
  ...{ balance, sold: [], state: undefined, creditLimit: null },
});

function sell(
  slip: OpenSlip,
  device: number,
  way: WayToPay,
  balance = 0,
  number = writers[device - 1]!.nextSale(),
) {
  const writer = writers[device - 1]!;
  const taken = takePart({
    ...{ newId: writer.newId, slip, pricing: PRICING, taxes: [VAT], event: AT_EVENT, now: NOW },
    ...{ drawer: DRAWER, amount: null, business: BUSINESS, way, held: known(balance) },
    ...{ deviceNumber: device, number },
  });
  assert.ok(taken.ok, JSON.stringify(taken));
  return taken;
}

/** What is left of an order, or so many thousandths of it, as a slip; as a device knows it that heard of nothing since. */
async function slipOf(id: string, quantity?: number, handed?: number): Promise<OpenSlip> {
  const [order] = await desk.books.rows(BUSINESS, 'orders', { id });
  assert.ok(order !== undefined);
  const sums = await desk.books.rows(BUSINESS, 'orderSums', { order: id });
  const made = handOver({
    ...{ newId, order, customer: buyer(1), today: '2026-11-22' },
    handed: handed === undefined ? handedOf(sums) : new Map([[order.lines[0]!.id, handed]]),
    items: new Map([[item(1, 450).id, item(1, 450)]]),
  });
  assert.ok(made.ok, JSON.stringify(made));
  if (quantity === undefined) return made.slip;
  const set = setQuantity(made.slip, made.slip.lines[0]!.key, quantity);
  assert.ok(set.ok);
  return set.slip;
}

async function payIn(id: string, amount: number): Promise<void> {
  const line = { account: `deposit:${id}`, name: 'Deposit', detail: '', amount } as const;
  const put = putPaidIn({ ...emptySlip(newId()), customer: buyer(1) }, line, newId());
  assert.ok(put.ok);
  assert.deepEqual(await push(sell(put.slip, 1, CASH_WAY).drafts), []);
}

const balanceOf = async (id: string): Promise<number> =>
  (await desk.books.rows(BUSINESS, 'heldSums', { account: `deposit:${id}` }))[0]?.amount ?? 0;
const handedIn = async (id: string): Promise<number> =>
  (await desk.books.rows(BUSINESS, 'orderSums', { order: id }))[0]?.handed ?? 0;

describe('an order of a customer', () => {
  it('is paid for in advance, handed over in two parts, and nothing is left of it', async () => {
    const { id, codes } = await kept();
    assert.deepEqual(codes, []);
    await payIn(id, 600);
    assert.equal(await balanceOf(id), -600);
    const first = sell(await slipOf(id, 1000), 1, DEPOSIT_WAY, -600);
    assert.equal(first.slip, null);
    assert.deepEqual(await push(first.drafts), []);
    assert.deepEqual([await balanceOf(id), await handedIn(id)], [-150, 1000]);
    // What the deposit leaves is paid in cash.
    const number = writers[0]!.nextSale();
    const part = sell(await slipOf(id), 1, DEPOSIT_WAY, -150, number);
    assert.equal(part.left, 1350 - 150);
    const rest = sell(part.slip!, 1, CASH_WAY, 0, number);
    assert.deepEqual(await push([...part.drafts, ...rest.drafts]), []);
    assert.deepEqual([await balanceOf(id), await handedIn(id)], [0, 4000]);
  });

  it('that a sale handed over is open again when that is voided', async () => {
    const { id } = await kept();
    const sold = sell(await slipOf(id), 1, CASH_WAY).drafts;
    assert.deepEqual(await push(sold), []);
    assert.equal(await handedIn(id), 4000);
    assert.deepEqual(await push(voided(writers[0]!, sold, OWNER, false)), []);
    assert.equal(await handedIn(id), 0);
  });

  it('is sold at what was agreed when the goods cost more by then, and by whoever is there', async () => {
    const { id } = await kept();
    const { setStamp: _stamp, ...dearer } = item(1, 990);
    const month = 31 * 86_400_000;
    assert.deepEqual(await push([draft('item.set', newId(), null, dearer)]), []);
    const event = { date: '2026-12-23', opens: '09:00', closes: '16:00' };
    const [row] = await desk.books.rows(BUSINESS, 'events', { id: EVENT });
    const { name, short, organiser, place, pitch, series, timeZone, stripe, cloth, notes } = row!;
    const more = {
      id: EVENT,
      name,
      short,
      organiser,
      place,
      pitch,
      series,
      timeZone,
      stripe,
      cloth,
      notes,
    };
    const days = [...row!.days, event];
    assert.deepEqual(await push([draft('event.set', newId(), null, { ...more, days })]), []);
    const writer = writers[0]!;
    const taken = takePart({
      ...{ newId, slip: await slipOf(id), pricing: PRICING, taxes: [VAT], event: AT_EVENT },
      ...{ drawer: DRAWER, amount: null, business: BUSINESS, way: CASH_WAY, now: NOW + month },
      ...{ deviceNumber: 1, number: writer.nextSale() },
    });
    assert.ok(taken.ok);
    assert.deepEqual(await push(taken.drafts, HELPER, 1, NOW + month), []);
    const { setStamp: _then, ...before } = item(1, 450);
    assert.deepEqual(
      await push([draft('item.set', newId(), null, before)], OWNER, 1, NOW + month),
      [],
    );
  });

  it('is doubted where two devices hand the same over, each as if the other had not', async () => {
    const { id } = await kept();
    assert.deepEqual(await push(sell(await slipOf(id), 1, CASH_WAY).drafts), []);
    const again = sell(await slipOf(id, 1000, 0), 2, CASH_WAY).drafts;
    assert.deepEqual(await push(again, OWNER, 2), ['sale/order-more']);
    assert.equal(await handedIn(id), 5000);
  });

  it('is doubted at less than was agreed, of an order that there is not, and of one that was called off', async () => {
    const { id } = await kept();
    const slip = await slipOf(id);
    const [line] = slip.lines;
    const with_ = (said: Partial<typeof line>): OpenSlip => ({
      ...slip,
      id: newId(),
      lines: [{ ...line!, ...said }],
    });
    const codes = async (open: OpenSlip): Promise<readonly string[]> =>
      await push(sell(open, 1, CASH_WAY).drafts, HELPER);
    assert.deepEqual(await codes(with_({ price: 10, listPrice: 450, reason: 'x' })), [
      'sale/order-price',
    ]);
    assert.deepEqual(await codes(with_({ discount: { amount: 900 } })), ['sale/order-more']);
    const other = { ...line!.ordered!, order: newId() };
    assert.deepEqual(await codes(with_({ ordered: other })), ['sale/order']);
    assert.deepEqual(await codes(with_({ ordered: { ...line!.ordered!, line: newId() } })), [
      'sale/order',
    ]);
    // Called by another's number, it would stand so on receipts.
    const misnamed = { ...with_({}), handsOver: { ...slip.handsOver!, number: 'K9-9' } };
    assert.deepEqual(await codes(misnamed), ['sale/order']);
    const { id: gone } = await kept();
    const open = await slipOf(gone);
    const off = stageOrder({ newId, order: gone, stage: 'off', reason: 'asked to', event: EVENT });
    assert.ok(off.ok);
    assert.deepEqual(await push(off.drafts, HELPER), []);
    assert.deepEqual(await codes(open), ['sale/order-off']);
  });

  it('is agreed by whoever may give so much off, and once', async () => {
    const priced = setPrice(goods(), goods().lines[0]!.key, 100, 'friend');
    assert.ok(!priced.ok);
    const slip = goods();
    const cheap = setPrice(slip, slip.lines[0]!.key, 100, 'friend');
    assert.ok(cheap.ok);
    assert.deepEqual((await kept({ slip: cheap.slip }, HELPER)).codes, [
      'right/missing',
      'order/unknown',
      'order/unknown',
    ]);
    assert.deepEqual(
      (await kept({ slip: { ...goods(), discount: { percent: '50' } } }, HELPER)).codes[0],
      'right/missing',
    );
    assert.deepEqual(
      (await kept({ slip: { ...goods(), discount: { percent: '5' } } }, HELPER)).codes,
      [],
    );
    // A price that nobody set up is no price of another making.
    const low = { ...goods(), lines: goods().lines.map((line) => ({ ...line, price: 10 })) };
    assert.equal((await kept({ slip: low }, HELPER)).codes[0], 'order/line');
    // A line that comes to more than what is left of it would take more in advance.
    const dear = keepOrder({
      ...{ newId, slip: goods(), pricing: PRICING, taxes: [VAT], swaps: [], number: 'K1-9' },
      ...{ sort: 'kept', deposit: 0, collectAt: EVENT, place: 'base', until: '', note: '' },
      ...{ stage: 'ready', today: '2026-11-22', event: EVENT, salt: 'sixteen-letters-' },
    });
    assert.ok(dear.ok);
    const [first, ...others] = dear.drafts;
    const lines9 = (first!.body['lines'] as { total: number }[]).map((each) => ({
      ...each,
      total: each.total + 1,
    }));
    const forged = { ...first!, body: { ...first!.body, lines: lines9 } };
    assert.deepEqual(await push([forged, ...others]), [
      'order/line',
      'order/unknown',
      'order/unknown',
    ]);
    const { id } = await kept();
    const [order] = await desk.books.rows(BUSINESS, 'orders', { id });
    const { number, source, customer: whose, lines, standingName } = order!;
    const same = { id, number, source, customer: whose, standingName };
    assert.deepEqual(
      await push([draft('order.set', newId(), null, { ...same, lines: [...lines] })]),
      [],
    );
    const otherwise = draft('order.set', newId(), null, {
      ...{ ...same, lines: [...lines], customer: customerId(2) },
    });
    assert.deepEqual(await push([otherwise]), ['order/again']);
    const nobody = draft('order.set', newId(), null, {
      ...{ ...same, id: newId(), lines: [...lines], customer: newId() },
    });
    assert.deepEqual(await push([nobody]), ['order/customer']);
    const terms = {
      ...{ order: id, customer: customerId(1), sort: 'kept', deposit: 0 },
      ...{ place: null, until: '', collectAt: null },
    } as const;
    const said = (more: object): Draft =>
      draft('order.terms', newId(), null, { ...terms, sort: 'kept', ...more });
    assert.deepEqual(await push([said({ collectAt: newId() })]), ['order/event']);
    assert.deepEqual(await push([said({ customer: customerId(2) })]), ['order/customer']);
  });

  it('is not paid from another’s deposit, nor with more than there is', async () => {
    const { id } = await kept();
    const { id: other } = await kept();
    await payIn(other, 5000);
    const { drafts } = sell(await slipOf(id), 1, DEPOSIT_WAY, -1800);
    assert.deepEqual(await push(drafts), ['held/overspent']);
    const open = await slipOf(other, 1000);
    const elsewhere = sell(
      {
        ...open,
        customer: buyer(2),
        handsOver: { ...open.handsOver!, customer: customerId(2) },
      },
      1,
      DEPOSIT_WAY,
      -5000,
    ).drafts;
    assert.deepEqual(await push(elsewhere), ['payment/account']);
    // Nobody pays in on an order that there is not.
    const line = {
      account: `deposit:${newId()}`,
      name: 'Deposit',
      detail: '',
      amount: 500,
    } as const;
    const put = putPaidIn({ ...emptySlip(newId()), customer: buyer(1) }, line, newId());
    assert.ok(put.ok);
    assert.deepEqual(await push(sell(put.slip, 1, CASH_WAY).drafts), ['sale/paid-in']);
  });

  it('that was paid where it was made is handed over for that, and said to be so once', async () => {
    const { id } = await kept();
    const paid = (more: object = {}): Draft =>
      draft('order.paid', newId(), null, {
        ...{ order: id, way: CARD_WAY.id, amount: 1800, reference: 'web 77' },
        ...more,
      });
    assert.deepEqual(await push([paid()], HELPER), ['right/missing']);
    assert.equal(await balanceOf(id), 0, 'nobody without the right makes a deposit out of nothing');
    assert.deepEqual(await push([paid({ amount: 1801 })]), ['order/paid-more']);
    assert.deepEqual(await push([paid()]), []);
    assert.equal(await balanceOf(id), -1800);
    assert.deepEqual(await push([paid()]), ['order/paid-again']);
    assert.deepEqual(await push([paid({ way: DEPOSIT_WAY.id, reference: 'x' })]), ['order/way']);
    assert.deepEqual(await push([paid({ order: newId(), reference: 'y' })]), ['order/unknown']);
    const sold = sell(await slipOf(id), 1, DEPOSIT_WAY, -1800);
    assert.equal(sold.slip, null);
    assert.deepEqual(await push(sold.drafts), []);
    assert.equal(await balanceOf(id), 0);
  });

  it('is forgotten with its customer, as far as it is personal; what was ordered stays', async () => {
    const { id } = await kept({ note: 'for the blue door' });
    const noted = async (): Promise<string | undefined> =>
      (await desk.books.rows(BUSINESS, 'orders', { id }))[0]?.note;
    assert.equal(await noted(), 'for the blue door');
    assert.deepEqual(
      await push([draft('customer.erased', newId(), null, { customer: customerId(1) })]),
      [],
    );
    assert.equal(await noted(), '');
    const [stored] = await desk.t.database.sequelize.query(
      "SELECT COUNT(*) AS many FROM daybook_entries WHERE entry LIKE '%blue door%'",
    );
    assert.equal(Number((stored as { many: unknown }[])[0]?.many), 0);
    assert.deepEqual(await push([desk.customer(1)]), []);
  });

  it('stands in the settling: what was paid in and not handed over yet is owed', async () => {
    const deposits = async (): Promise<number> => {
      const rows = await settlingRows(desk.t.database, desk.books, BUSINESS, EVENT, NOW);
      assert.ok(rows !== null);
      return (
        heldTotals(settlingOf(rows).balances).find(({ head }) => head === 'deposit')?.amount ?? 0
      );
    };
    const before = await deposits();
    const { id } = await kept();
    await payIn(id, 700);
    assert.equal((await deposits()) - before, -700);
  });
});

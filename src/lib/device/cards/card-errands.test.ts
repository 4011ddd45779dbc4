/** What is told to the acquirer is what the row says at that moment, and ends only by what is said of it. */
import assert from 'node:assert/strict';
import { beforeEach, describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { draft } from '../../core/daybook/kinds';
import type { Draft } from '../../core/daybook/chain';
import type { CardErrand } from '../../core/payment/card-state';
import type { CardAnswer, RefundAnswer } from '../../core/payment/card-messages';
import { makeReturn } from '../../core/sale/make-return';
import { takePart } from '../../core/sale/take-part';
import { emptySlip, putItem, type OpenSlip } from '../../core/slip/open-slip';
import { AT_EVENT, CARD, PRICING, VAT } from '../../core/testing/a-sale';
import {
  BUSINESS,
  CARD_WAY,
  deviceId,
  EVENT,
  idOf,
  item,
} from '../../core/testing/made-up-business';
import { DeviceDatabase } from '../database';
import { DeviceDaybook } from '../daybook';
import { NO_STANDING } from '../receive';
import type { Asked } from '../sync/transport';
import { doErrandsOnce, type ErrandSurroundings } from './card-errands';

const NOW = Date.UTC(2026, 10, 22, 9);
let db: DeviceDatabase;
let daybook: DeviceDaybook;
let ids = 0;
const newId = (): string => idOf(61, (ids += 1));
/** What the acquirer was asked, in order. */
let told: string[];
const NO_NETWORK: Asked<RefundAnswer> = { came: 'nothing', why: 'silence' };
let refundAnswers: () => Promise<Asked<RefundAnswer>> | Asked<RefundAnswer> = () => NO_NETWORK;
let answers: (errand: CardErrand) => Promise<Asked<CardAnswer>> | Asked<CardAnswer>;

const surroundings: ErrandSurroundings = {
  ask: async (errand) => {
    told.push(`${errand.does} ${errand.payment}`);
    return await answers(errand);
  },
  askRefund: async (refund) => {
    told.push(`refund ${refund}`);
    return await refundAnswers();
  },
  unlessUnderWay: async (_payment, run) => {
    await run();
    return true;
  },
  now: () => NOW,
};

beforeEach(async () => {
  db = new DeviceDatabase(`errands-${String((ids += 1))}`, {
    indexedDB: new IDBFactory(),
    IDBKeyRange,
  });
  await db.write('identity', { business: BUSINESS, device: deviceId(1), number: 1, token: 'x' });
  daybook = new DeviceDaybook(db, { now: () => NOW });
  told = [];
});

async function say(drafts: readonly Draft[]): Promise<void> {
  await daybook.append(() => ({ ok: true, drafts }));
  await daybook.settle();
}

const slipOf = (id: string): OpenSlip => {
  const put = putItem(emptySlip(id), item(1, 1000), 1000, 'a');
  if (!put.ok) throw new Error('it does not go on');
  return put.slip;
};

/** A card that was asked for and not finished. @returns Its id, and how it is taken with no network. */
async function asked(): Promise<{ payment: string; carry: () => Promise<void> }> {
  const [payment, slip] = [newId(), slipOf(newId())];
  const taken = takePart({
    newId,
    slip,
    pricing: PRICING,
    taxes: [VAT],
    event: AT_EVENT,
    deviceNumber: 1,
    number: 1,
    now: NOW,
    way: CARD_WAY,
    drawer: null,
    amount: null,
    id: payment,
    card: { ...CARD, state: 'deferred', sealed: 'sealed', approval: '', acquirer: '' },
  });
  if (!taken.ok) throw new Error(JSON.stringify(taken));
  const { charge, surcharge } = taken.part;
  const amount = charge + surcharge;
  const body = { payment, slip: slip.id, way: CARD_WAY.id, amount };
  await say([draft('payment.asked', newId(), EVENT, body)]);
  return { payment, carry: async () => await say(taken.drafts) };
}

const answer = (state: CardAnswer['state'], amount = 1000): Asked<CardAnswer> => ({
  came: 'answer',
  answer: { state, amount, approval: '', acquirer: 'a-1', reason: '', expires: '' },
});
const refusal = (code: string, status = 409): Asked<CardAnswer> => ({
  came: 'refusal',
  status,
  refusal: { code, message: 'The acquirer says: too many requests.' },
});
const stateOf = async (payment: string): Promise<string | undefined> =>
  (await db.books.cardPayments.get(payment))?.state;

describe('errands about cards', () => {
  it('are what the row says when they are done, not when they were listed', async () => {
    const [first, second] = [await asked(), await asked()];
    await first.carry();
    // While the first is being sent, the seller carries the second, whose cancel was waiting.
    answers = async ({ payment }) => {
      if (payment === first.payment) await second.carry();
      return answer('captured');
    };
    await doErrandsOnce(daybook, surroundings);
    assert.deepEqual(told, [`send ${first.payment}`, `send ${second.payment}`]);
    assert.equal(await stateOf(second.payment), 'captured');
  });

  it('undo what was charged and is no part of anything', async () => {
    const { payment } = await asked();
    const body = {
      payment,
      state: 'captured',
      amount: 1000,
      approval: '',
      acquirer: 'a-1',
    } as const;
    await say([draft('payment.result', newId(), EVENT, { ...body, reason: '' })]);
    answers = () => answer('reversed');
    await doErrandsOnce(daybook, surroundings);
    assert.deepEqual(told, [`cancel ${payment}`]);
    assert.equal(await stateOf(payment), 'reversed');
    assert.equal(await doErrandsOnce(daybook, surroundings), 'nothing');
    assert.equal(told.length, 1);
  });

  it('do not end by being refused: a carried card is sent again, a cancel is asked again', async () => {
    const [carried, left] = [await asked(), await asked()];
    await carried.carry();
    for (const code of ['card/not-now', 'card/refused', 'card/other-device']) {
      answers = () => refusal(code);
      assert.equal(await doErrandsOnce(daybook, surroundings), 'later', code);
      assert.deepEqual([await stateOf(carried.payment), await stateOf(left.payment)], ['', '']);
    }
    answers = ({ does }) => answer(does === 'send' ? 'captured' : 'cancelled');
    assert.equal(await doErrandsOnce(daybook, surroundings), 'nothing');
    assert.deepEqual(
      [await stateOf(carried.payment), await stateOf(left.payment)],
      ['captured', 'cancelled'],
    );
  });

  it('do not hold each other up: not by silence, by a throw, or by somebody at the reader', async () => {
    const [silent, thrown, busy, last] = [
      await asked(),
      await asked(),
      await asked(),
      await asked(),
    ];
    answers = ({ payment }) => {
      if (payment === thrown.payment) throw new Error('the browser is out of memory');
      return payment === silent.payment ? { came: 'nothing', why: 'silence' } : answer('cancelled');
    };
    const left = await doErrandsOnce(daybook, {
      ...surroundings,
      unlessUnderWay: async (payment, run) => {
        if (payment === busy.payment) return false;
        await run();
        return true;
      },
    });
    assert.equal(left, 'later');
    assert.deepEqual([await stateOf(busy.payment), await stateOf(last.payment)], ['', 'cancelled']);
    assert.ok(!told.some((each) => each.endsWith(busy.payment)));
  });

  it('of a device that was shut out are done by another one, under the same reference', async () => {
    const card = await asked();
    await card.carry();
    await db.write('identity', { business: BUSINESS, device: deviceId(2), number: 2, token: 'y' });
    answers = () => answer('captured');
    await doErrandsOnce(daybook, surroundings);
    assert.deepEqual(told, []);
    await db.write('standing', { ...NO_STANDING, shutOut: [deviceId(1)] });
    await doErrandsOnce(daybook, surroundings);
    assert.deepEqual(told, [`send ${card.payment}`]);
  });
});

describe('money that goes back to a card', () => {
  const stateOfRefund = async (refund: string): Promise<string | undefined> =>
    (await db.books.cardRefunds.get(refund))?.state;
  /** A sale that a card paid, and of which all came back to that card. @returns The refund. */
  async function comesBack(): Promise<string> {
    const { carry } = await asked();
    await carry();
    const [sale] = await db.books.sales.toArray();
    const [part] = await db.books.payments.toArray();
    const outcome = makeReturn({
      ...{ newId, sale: sale!, lines: await db.books.saleLines.toArray(), payments: [part!] },
      ...{ before: [], voids: [], undone: [], refunds: [], reason: 'it wilted' },
      chosen: [{ line: 0, typed: '1', to: 'stock' }],
      ...{ way: CARD_WAY.id, drawer: null, card: part!.id, currency: 'GBP', cashStep: 1 },
      ...{ deviceNumber: 1, number: 1, event: EVENT, place: EVENT, day: '2026-11-22', hour: 9 },
    });
    if (!outcome.ok) throw new Error(outcome.refusal.code);
    await say(outcome.drafts);
    const [refund] = await db.books.cardRefunds.toArray();
    return refund!.id;
  }
  const said = (state: RefundAnswer['state']): Asked<RefundAnswer> => ({
    came: 'answer',
    answer: { state, amount: 1000, reason: state === 'refused' ? 'That is too much.' : '' },
  });

  it('is asked for under one id until somebody answers, and then no more', async () => {
    answers = () => answer('captured');
    const refund = await comesBack();
    refundAnswers = () => NO_NETWORK;
    assert.equal(await doErrandsOnce(daybook, surroundings), 'later');
    assert.equal(await stateOfRefund(refund), '');
    refundAnswers = () => said('refunded');
    await doErrandsOnce(daybook, surroundings);
    assert.equal(await doErrandsOnce(daybook, surroundings), 'nothing');
    assert.equal(await stateOfRefund(refund), 'refunded');
    assert.deepEqual(
      told.filter((each) => each.startsWith('refund')),
      [`refund ${refund}`, `refund ${refund}`],
    );
  });

  it('waits a moment where the server has not heard of the return, and ends where it is refused', async () => {
    answers = () => answer('captured');
    const refund = await comesBack();
    refundAnswers = () => refusal('card/not-decided') as Asked<RefundAnswer>;
    assert.equal(await doErrandsOnce(daybook, surroundings), 'soon');
    refundAnswers = () => said('refused');
    await doErrandsOnce(daybook, surroundings);
    assert.equal(await stateOfRefund(refund), 'refused');
    assert.equal((await db.books.cardRefunds.get(refund))?.reason, 'That is too much.');
  });

  it('of another device is that one’s to ask for', async () => {
    answers = () => answer('captured');
    const refund = await comesBack();
    await db.books.cardRefunds.update(refund, { device: deviceId(2) });
    refundAnswers = () => said('refunded');
    await doErrandsOnce(daybook, surroundings);
    assert.ok(!told.includes(`refund ${refund}`));
    await db.write('standing', { ...NO_STANDING, shutOut: [deviceId(2)] });
    await doErrandsOnce(daybook, surroundings);
    assert.ok(told.includes(`refund ${refund}`));
  });
});

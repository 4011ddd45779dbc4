/** Putting sales right on the server: found by anything, and money that goes back to a card only by a return that stands. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { draft } from '../../src/lib/core/daybook/kinds';
import { makeRefund, type MakeRefund } from '../../src/lib/core/sale/make-refund';
import { makeReturn, type MakeReturn } from '../../src/lib/core/sale/make-return';
import type { Fix } from '../../src/lib/core/daybook/kinds/sale-corrected';
import { correctSale } from '../../src/lib/core/sale/correct-sale';
import { bringBackOn } from '../../src/lib/core/sale/exchange';
import { ringUpExchange } from '../../src/lib/core/sale/ring-up-exchange';
import { voidSale } from '../../src/lib/core/sale/void-sale';
import { takePart } from '../../src/lib/core/sale/take-part';
import {
  BEHIND_AT_ONCE,
  behindPageSchema,
  type Behind,
} from '../../src/lib/core/settle/behind-row';
import { CASH_WAY } from '../../src/lib/core/payment/ways';
import { emptySlip, putItem, putUnlisted } from '../../src/lib/core/slip/open-slip';
import { AT_EVENT, CARD, PRICING, VAT } from '../../src/lib/core/testing/a-sale';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import {
  BUSINESS,
  CARD_WAY,
  customerDraft,
  customerId,
  deviceId,
  DRAWER,
  EVENT,
  eventBody,
  idOf,
  item,
  personBody,
  personId,
} from '../../src/lib/core/testing/made-up-business';
import { foundedDrafts, goods } from '../../src/lib/core/testing/founded';
import { findSales, saleDocument } from '../../src/lib/server/books/find-sales';
import { bankNow } from '../../src/lib/server/books/bank-rows';
import { behindRow } from '../../src/lib/server/books/behind-row';
import { settlingRows } from '../../src/lib/server/books/settling-rows';
import { BookReader } from '../../src/lib/server/books/read-books';
import { decidedRefund, notedRefund, noteRefund } from '../../src/lib/server/cards/refunds';
import { append } from '../../src/lib/server/daybook/append';
import { testDatabase, type TestDatabase } from '../support/test-database';

const ITEM = item(1, 105).id;
const NOW = Date.UTC(2026, 10, 22, 10);
const OWNER = personId(1);
const HELPER = personId(3);
const writer = new DeviceWriter(1);
const { newId } = writer;
const ref = (n: number) => ({ business: BUSINESS, device: deviceId(n) });
const BOTH = [{ line: 0, typed: '2', to: 'stock' }] as const;
let t: TestDatabase;
let books: BookReader;
let [sales, madeSoFar] = [0, 0];

/** @returns What was found against them. */
const push = async (
  drafts: readonly Draft[],
  by: string | null = OWNER,
): Promise<readonly string[]> => {
  const entries = writer.append(drafts, NOW, by);
  const { kept, refused } = await append(t.database, ref(1), entries, NOW);
  assert.equal(refused, null);
  return kept.map(({ code }) => code);
};

before(async () => {
  t = await testDatabase();
  books = new BookReader(t.database);
  for (const n of [1, 2]) await t.enrol(BUSINESS, deviceId(n));
  const [owner, ...rest] = foundedDrafts(writer);
  assert.deepEqual(await push([owner!], null), []);
  assert.deepEqual(await push(rest), []);
});
after(() => t.end());

/** A sale of two of the first item, paid by card. @returns Its id. */
async function soldByCard(): Promise<string> {
  const put = putItem(emptySlip(newId()), item(1, 105), 2000, 'a');
  assert.ok(put.ok);
  const payment = newId();
  const taken = takePart({
    ...{ newId, slip: put.slip, pricing: PRICING, taxes: [VAT], event: AT_EVENT, now: NOW },
    ...{ way: CARD_WAY, drawer: null, amount: null, id: payment, card: CARD },
    ...{ deviceNumber: 1, number: (sales += 1) },
  });
  assert.ok(taken.ok && taken.slip === null);
  const { charge, surcharge } = taken.part;
  const asked = { payment, slip: put.slip.id, way: CARD_WAY.id, amount: charge + surcharge };
  await push([draft('payment.asked', newId(), EVENT, asked), ...taken.drafts]);
  return taken.drafts.find(({ kind }) => kind === 'sale.rung')!.id;
}

async function backToCard(sale: string, more: Partial<MakeReturn> = {}): Promise<Draft> {
  const found = await saleDocument(t.database, books, BUSINESS, sale);
  assert.ok(found !== null);
  const { lines, payments, returns, refunds, voids, undone } = found;
  const outcome = makeReturn({
    ...{ newId, sale: found.sale, lines, payments, before: returns, refunds, voids, undone },
    chosen: [{ line: 0, typed: '1', to: 'stock' }],
    ...{ reason: 'it wilted', way: CARD_WAY.id, drawer: null, card: payments[0]!.id, cashStep: 1 },
    currency: 'GBP',
    ...{ deviceNumber: 1, number: (madeSoFar += 1), event: EVENT, place: EVENT },
    ...{ day: '2026-11-22', hour: 10, ...more },
  });
  assert.ok(outcome.ok, JSON.stringify(outcome));
  return outcome.drafts[0]!;
}
const amountIn = (made: Draft): number =>
  (made.body as { money: { amount: number }[] }).money[0]!.amount;
const refundIn = (made: Draft): string =>
  (made.body as { money: { card: { refund: string } }[] }).money[0]!.card.refund;

describe('the documents behind a figure', () => {
  it('are what was sold and what came back, page after page', async () => {
    const sale = await soldByCard();
    const made = await backToCard(sale);
    assert.deepEqual(await push([made]), []);
    const number = `D1-B${String(madeSoFar)}`;
    const asked = { business: BUSINESS, event: EVENT, after: '' };
    const parts = await behindRow(t.database, { ...asked, of: 'way', id: CARD_WAY.id });
    // As a device takes it from the server.
    assert.deepEqual(behindPageSchema.parse(parts), parts);
    assert.deepEqual(
      parts.documents.slice(0, 2).map((each) => [each.number === number, Math.sign(each.amount)]),
      [
        [true, -1],
        [false, 1],
      ],
    );
    assert.equal(parts.documents[0]!.amount, 0 - amountIn(made));
    assert.deepEqual(
      parts.documents.slice(0, 2).map((each) => each.sale),
      [sale, sale],
    );
    const lines = await behindRow(t.database, { ...asked, of: 'item', id: ITEM });
    const [back, sold] = lines.documents;
    assert.deepEqual([back!.number, back!.quantity], [number, -1000]);
    assert.equal(sold!.quantity, 2000);
    assert.equal(sold!.amount + 2 * back!.amount, 0);
    const drawer = await behindRow(t.database, { ...asked, of: 'drawer', id: newId() });
    assert.deepEqual(drawer, { documents: [], next: '' });
  });

  it('goes on where a page ended', async () => {
    for (let n = 0; n < 22; n += 1) {
      const sale = await soldByCard();
      assert.deepEqual(await push([await backToCard(sale)]), []);
    }
    const of = { business: BUSINESS, event: EVENT, of: 'item', id: ITEM } as const;
    const first = await behindRow(t.database, { ...of, after: '' });
    assert.notEqual(first.next, '');
    const second = await behindRow(t.database, { ...of, after: first.next });
    const all = [...first.documents, ...second.documents];
    assert.equal(first.documents.length, BEHIND_AT_ONCE);
    assert.equal(second.next, '');
    assert.equal(new Set(all.map(({ number }) => number)).size, all.length);
    assert.equal(all.filter(({ quantity }) => quantity! < 0).length, madeSoFar);
    assert.equal(all.length, sales + madeSoFar);
  });
});

describe('goods that come back and pay for others', () => {
  const swapped = async (price: number): Promise<readonly Draft[]> => {
    const found = await saleDocument(t.database, books, BUSINESS, await soldByCard());
    assert.ok(found !== null);
    const put = putItem(emptySlip(newId()), item(1, price), 1000, newId());
    assert.ok(put.ok);
    const { sale, lines, payments, returns: before } = found;
    const brought = bringBackOn({
      ...{ sale, lines, payments, before, slip: put.slip, isVoid: false },
      chosen: [{ line: 0, typed: '1', to: 'stock' }],
      ...{ reason: 'too small', currency: 'GBP' },
    });
    assert.ok(brought.ok);
    const rung = ringUpExchange({
      ...{ newId, slip: brought.slip, pricing: PRICING, taxes: [VAT], event: AT_EVENT, now: NOW },
      ...{ deviceNumber: 1, number: (sales += 1), returnNumber: (madeSoFar += 1) },
      ...{ rest: null, sold: [] },
    });
    assert.ok(rung.ok, JSON.stringify(rung));
    return rung.drafts;
  };
  // One of two, with what the card had paid above.
  const back = (): number => 107;

  it('are written down together, and everything is found of both', async () => {
    const drafts = await swapped(back());
    assert.deepEqual(
      drafts.map(({ kind }) => kind),
      ['payment.taken', 'return.made', 'sale.rung'],
    );
    assert.deepEqual(await push(drafts), []);
    const found = await saleDocument(t.database, books, BUSINESS, drafts[2]!.id);
    assert.deepEqual(
      found?.payments.map(({ way, clears }) => [way, clears]),
      [['exchange', back()]],
    );
  });

  it('are doubted where no goods came back, or more is said to be paid than was', async () => {
    const [part, made, sale] = await swapped(back());
    assert.deepEqual(await push([part!, sale!]), ['sale/exchange']);
    // What is heard of later has paid for it after all.
    assert.deepEqual(await push([made!]), []);
    const [, second] = await swapped(back());
    assert.deepEqual(await push([second!]), ['return/exchange']);
    const [other] = await swapped(back());
    const forged = { ...other!, body: { ...(other!.body as object), method: 'own' } } as Draft;
    assert.deepEqual(await push([forged]), ['payment/way']);
  });
});

describe('what was booked wrongly', () => {
  const correction = async (sale: string, fix: Fix): Promise<Draft> => {
    const found = await saleDocument(t.database, books, BUSINESS, sale);
    assert.ok(found !== null);
    const made = correctSale({ ...found, newId, fix, reason: 'the wrong button' });
    assert.ok(made.ok, JSON.stringify(made));
    return made.drafts[0]!;
  };
  const { id, name, detail, unit, cost, isStocked, maker } = item(5, 105);
  const other: Fix = { is: 'item', line: 0, item: id, name, detail, unit, cost, isStocked, maker };

  it('is put right once, as the sale stands by then', async () => {
    assert.deepEqual(await push([goods({ newId }, 5, 105)]), []);
    const sale = await soldByCard();
    // Two devices out of touch say the same: one of them is too late.
    const [one, two] = [await correction(sale, other), await correction(sale, other)];
    assert.deepEqual(await push([one]), []);
    assert.deepEqual(await push([two]), ['correct/not-so']);
    const found = await saleDocument(t.database, books, BUSINESS, sale);
    assert.deepEqual([found!.lines[0]!.item, found!.corrections.length], [id, 2]);
    // What comes back of it is what it was in truth.
    const made = await backToCard(sale);
    assert.deepEqual(await push([made]), []);
    const items = (made.body as { takes: { postings: { item?: string }[] } }).takes.postings;
    assert.ok(items.some((posting) => posting.item === id));
    assert.ok(items.every((posting) => posting.item !== ITEM));
  });

  it('moves what that mistake moves and nothing else, by whoever may, of what there is', async () => {
    const sale = await soldByCard();
    const right = await correction(sale, other);
    const body = right.body as { moves: object[] };
    const forged = (more: object): Draft => ({
      ...right,
      id: newId(),
      body: { ...body, ...more },
    });
    assert.deepEqual(await push([forged({ moves: [] })]), ['correct/figures']);
    assert.deepEqual(await push([forged({ sale: newId() })]), ['correct/unknown']);
    const byHand = await correction(await soldByCard(), { ...other, item: newId() });
    assert.deepEqual(await push([byHand]), ['correct/not-so']);
    // Neither whose goods they are nor what they cost is the writer's to say, nor goods of another price.
    for (const more of [{ maker: newId() }, { cost: 1 }, { item: item(3, 315).id }] as const) {
      const odd = await correction(await soldByCard(), { ...other, ...more });
      assert.deepEqual(await push([odd]), ['correct/not-so'], JSON.stringify(more));
    }
    const nobody = await correction(await soldByCard(), { is: 'seller', seller: newId() });
    assert.deepEqual(await push([nobody]), ['correct/not-so']);
    assert.deepEqual(await push([await correction(await soldByCard(), other)], HELPER), [
      'right/missing',
    ]);
  });

  it('is on the sum of whoever sold it', async () => {
    const pay = { person: OWNER, wage: 0, commission: '10' };
    assert.deepEqual(await push([draft('staff.pay', newId(), null, pay)]), []);
    const sold = async (): Promise<readonly [number, number]> => {
      const rows = await settlingRows(t.database, books, BUSINESS, EVENT, NOW);
      const of = (person: string): number =>
        rows!.sellers.reduce((all, { seller, net }) => all + (seller === person ? net : 0), 0);
      return [of(OWNER), of(HELPER)];
    };
    const sale = await soldByCard();
    const before = await sold();
    assert.deepEqual(await push([await correction(sale, { is: 'seller', seller: HELPER })]), []);
    const after = await sold();
    const moved = before[0] - after[0];
    assert.ok(moved > 0);
    assert.equal(after[1] - before[1], moved);
    // And off it again, where it comes back.
    assert.deepEqual(await push([await backToCard(sale, { chosen: BOTH })]), []);
    assert.deepEqual(await sold(), [after[0], before[1]]);
  });
});

describe('a sale that was rung up at the wrong event', () => {
  const OTHER = idOf(4, 8);
  const [OTHERS_DRAWER, UNLISTED] = [newId(), 777];
  const moved = async (
    sale: string,
    to: string,
    cash: string | null = null,
  ): Promise<readonly Draft[]> => {
    const found = await saleDocument(t.database, books, BUSINESS, sale);
    assert.ok(found !== null);
    const fix: Fix = { is: 'event', move: newId(), to, cash };
    const made = correctSale({ ...found, newId, fix, reason: 'the phone was still at Green' });
    assert.ok(made.ok, JSON.stringify(made));
    return made.drafts;
  };
  const soldForCash = async (): Promise<string> => {
    const line = { name: 'Basket', price: UNLISTED, taxes: [VAT.id] };
    const put = putUnlisted(emptySlip(newId()), line, 'a');
    assert.ok(put.ok);
    const taken = takePart({
      ...{ newId, slip: put.slip, pricing: PRICING, taxes: [VAT], event: AT_EVENT, now: NOW },
      ...{ way: CASH_WAY, drawer: DRAWER, amount: null },
      ...{ deviceNumber: 1, number: (sales += 1) },
    });
    assert.ok(taken.ok);
    assert.deepEqual(await push(taken.drafts), []);
    return taken.drafts.find(({ kind }) => kind === 'sale.rung')!.id;
  };
  const voided = async (sale: string, event: string, drawer: string): Promise<Draft> => {
    const found = await saleDocument(t.database, books, BUSINESS, sale);
    assert.ok(found !== null);
    const where = { event, openDrawers: [drawer] };
    const made = voidSale({ ...found, ...where, newId, reason: 'gone home' });
    assert.ok(made.ok, JSON.stringify(made));
    return made.drafts[0]!;
  };
  const settled = async (event: string) => {
    const rows = await settlingRows(t.database, books, BUSINESS, event, NOW);
    assert.ok(rows !== null);
    const of = (account: string): number =>
      rows.accounts.find((each) => each.account === account)?.amount ?? 0;
    return {
      rows,
      elsewhere: of('elsewhere'),
      slips: of('slip'),
      takings: rows.totals?.takings ?? 0,
    };
  };
  const behind = async (event: string, of: Behind, id: string, sale: string) => {
    const asked = { business: BUSINESS, event, of, id, after: '' };
    const { documents } = await behindRow(t.database, asked);
    return documents
      .filter((each) => each.sale === sale)
      .map(({ amount, isBack }) => [amount, isBack]);
  };

  before(async () => {
    const drawer = { name: 'Tin', float: 5000, counts: [{ value: 5000, count: 1 }] };
    const drafts = [
      draft('event.set', newId(), OTHER, { ...eventBody('Moor'), id: OTHER }),
      draft('drawer.opened', OTHERS_DRAWER, OTHER, drawer),
    ];
    assert.deepEqual(await push(drafts), []);
  });

  it('is of that event: its figures, its sellers and what is behind them', async () => {
    const sale = await soldByCard();
    const [here, there] = [await settled(EVENT), await settled(OTHER)];
    const drafts = await moved(sale, OTHER);
    assert.deepEqual(
      drafts.map(({ event }) => event),
      [EVENT, OTHER],
    );
    assert.deepEqual(await push(drafts), []);
    const [now, then] = [await settled(EVENT), await settled(OTHER)];
    const gone = here.takings - now.takings;
    assert.ok(gone > 0);
    assert.equal(then.takings - there.takings, gone);
    // The card goes along: to the report of there, and what is to come to the bank.
    assert.deepEqual([now.elsewhere, then.elsewhere], [here.elsewhere, there.elsewhere]);
    const cards = ({ rows }: typeof now): readonly string[] => rows.cards.map(({ id }) => id);
    const [card] = cards(here).filter((id) => !cards(now).includes(id));
    assert.deepEqual(cards(then), [card]);
    const { money } = await bankNow(t.database, books, BUSINESS, '', NOW);
    const toCome = (event: string): readonly string[] =>
      money.flatMap(({ parts }) =>
        parts.flatMap((part) => (part.event === event ? part.payments : [])),
      );
    assert.deepEqual(toCome(OTHER), [card]);
    assert.ok(!toCome(EVENT).includes(card!));
    const owed = ({ rows }: typeof now): number =>
      rows.accounts.find(({ account }) => account === `owed:${CARD_WAY.id}`)?.amount ?? 0;
    assert.equal(owed(here) - owed(now), owed(then) - owed(there));
    assert.deepEqual(await behind(EVENT, 'way', CARD_WAY.id, sale), [[214, true]]);
    assert.deepEqual(await behind(OTHER, 'way', CARD_WAY.id, sale), [[214, false]]);
    assert.deepEqual([now.slips, then.slips], [here.slips, there.slips]);
    const sellers = ({ rows }: typeof now): number =>
      rows.sellers.reduce((all, { net }) => all + net, 0);
    assert.equal(sellers(here) - sellers(now), sellers(then) - sellers(there));
    assert.ok(sellers(then) > sellers(there));
    assert.deepEqual(await behind(EVENT, 'item', ITEM, sale), [[210, true]]);
    assert.deepEqual(await behind(OTHER, 'item', ITEM, sale), [[210, false]]);
    const found = await saleDocument(t.database, books, BUSINESS, sale);
    assert.deepEqual([found?.sale.event, found?.isMoved], [OTHER, true]);
    // What comes back of it had been sold there.
    const back = await backToCard(sale);
    assert.deepEqual(await push([back]), []);
    assert.equal((back.body as { soldFrom: string }).soldFrom, OTHER);
  });

  it('has its cash in a drawer of that event, and is back as if nothing had been said', async () => {
    const sale = await soldForCash();
    const of = ({ rows }: Awaited<ReturnType<typeof settled>>): number =>
      rows.unlisted.find(({ price }) => price === UNLISTED)?.quantity ?? 0;
    const before = await settled(EVENT);
    assert.equal(of(before), 1000);
    assert.deepEqual(await push(await moved(sale, OTHER, OTHERS_DRAWER)), []);
    assert.deepEqual([of(await settled(EVENT)), of(await settled(OTHER))], [0, 1000]);
    assert.deepEqual(await behind(EVENT, 'drawer', DRAWER, sale), [[UNLISTED, true]]);
    assert.deepEqual(await behind(OTHER, 'drawer', OTHERS_DRAWER, sale), [[UNLISTED, false]]);
    assert.deepEqual(await push(await moved(sale, EVENT, DRAWER)), []);
    const after = await settled(EVENT);
    assert.deepEqual(after.rows.accounts, before.rows.accounts);
    assert.deepEqual([of(after), of(await settled(OTHER))], [1000, 0]);
  });

  it('is void there, where its cash is; what is out of touch with that is looked at', async () => {
    const sale = await soldForCash();
    const before = await settled(OTHER);
    const asRung = await voided(sale, EVENT, DRAWER);
    assert.deepEqual(await push(await moved(sale, OTHER, OTHERS_DRAWER)), []);
    assert.deepEqual(await push([await voided(sale, OTHER, OTHERS_DRAWER)]), []);
    assert.deepEqual((await settled(OTHER)).rows.accounts, before.rows.accounts);
    const other = await soldForCash();
    const stale = await voided(other, EVENT, DRAWER);
    assert.deepEqual(await push(await moved(other, OTHER)), []);
    assert.deepEqual(await push([stale]), ['void/figures']);
    assert.deepEqual(await push([asRung]), ['void/again']);
    const third = await soldForCash();
    const late = await moved(third, OTHER);
    assert.deepEqual(await push([await voided(third, EVENT, DRAWER)]), []);
    const then = await settled(OTHER);
    assert.deepEqual(await push(late), ['correct/voided', 'correct/voided']);
    assert.deepEqual((await settled(OTHER)).rows.accounts, then.rows.accounts);
  });

  it('is moved once by each thing that says so, to an event and a drawer that there are, by whoever may', async () => {
    const sale = await soldByCard();
    const [out, into] = await moved(sale, OTHER);
    const again = await moved(sale, OTHER);
    assert.deepEqual(await push([out!, into!]), []);
    assert.deepEqual(await push([{ ...into!, id: newId() }]), ['correct/not-so']);
    const before = await settled(OTHER);
    assert.deepEqual(await push(again), ['correct/not-so', 'correct/not-so']);
    // What is barred moves nothing: it would be sold twice.
    assert.deepEqual((await settled(OTHER)).rows.accounts, before.rows.accounts);
    assert.deepEqual(await push(await moved(await soldByCard(), newId())), [
      'correct/not-so',
      'correct/not-so',
    ]);
    const [onlyOut] = await moved(await soldByCard(), OTHER);
    const { moves, ...rest } = onlyOut!.body as { moves: object[] };
    const less = { ...onlyOut!, body: { ...rest, moves: moves.slice(0, 0) } };
    assert.deepEqual(await push([less]), ['correct/figures']);
    assert.deepEqual(await push(await moved(await soldByCard(), OTHER), HELPER), [
      'right/missing',
      'right/missing',
    ]);
  });
});

describe('money given back without a sale', () => {
  const DRAWER = newId();
  const given = (more: Partial<MakeRefund> = {}): Draft => {
    const made = makeRefund({
      ...{ newId, pricing: PRICING, taxes: [VAT], now: NOW, before: 0, most: null },
      lines: [{ item: item(1, 105), quantity: '1', each: '1.05', to: 'stock' }],
      ...{ event: { id: EVENT, swaps: [] }, timeZone: 'Europe/London', saleNumber: '' },
      ...{ reason: 'of the spring', way: 'cash', drawer: DRAWER, reference: '' },
      ...{ deviceNumber: 1, number: (madeSoFar += 1), ...more },
    });
    assert.ok(made.ok, JSON.stringify(made));
    return made.drafts[0]!;
  };

  it('is asked for its right, its goods, its tax, its drawer and its number', async () => {
    const opened = { name: 'Tin', float: 5000, counts: [{ value: 5000, count: 1 }] };
    assert.deepEqual(await push([draft('drawer.opened', DRAWER, EVENT, opened)]), []);
    const made = given();
    assert.deepEqual(await push([made]), []);
    assert.deepEqual(await push([given()], HELPER), ['right/missing']);
    const again = { ...given(), body: { ...(made.body as object) } } as Draft;
    assert.deepEqual(await push([again]), ['return/number']);
    assert.deepEqual(await push([given({ drawer: newId() })]), ['return/drawer']);
    const unknown = { ...item(1, 105), id: newId() };
    const ofNothing = [{ item: unknown, quantity: '1', each: '1.05', to: 'stock' }] as const;
    assert.deepEqual(await push([given({ lines: ofNothing })]), ['refund/goods']);
    const ofMaker = [{ ...ofNothing[0], item: { ...item(1, 105), maker: newId() } }];
    assert.deepEqual(await push([given({ lines: ofMaker })]), ['refund/goods']);
    const untaxed = given();
    const { taxes: _taxes, ...body } = untaxed.body as { taxes: unknown };
    assert.deepEqual(await push([{ ...untaxed, body: { ...body, taxes: [] } }]), ['sale/tax']);
  });

  it('is held against the sale of the number on the receipt, and what came back of that', async () => {
    const number = `D1-${String(sales + 1)}`;
    const sale = await soldByCard();
    assert.deepEqual(await push([given({ saleNumber: number })]), []);
    assert.deepEqual(await push([await backToCard(sale)]), []);
    assert.deepEqual(await push([given({ saleNumber: number })]), ['refund/more']);
    assert.deepEqual(await push([given({ saleNumber: 'D9-999' })]), ['refund/no-sale']);
  });

  it('is within what one person may on a day, whoever lent the right; an owner always', async () => {
    const cash = { isBlind: false, recountAbove: null, refundMost: 250 };
    assert.deepEqual(await push([draft('business.cash', newId(), null, cash)]), []);
    const lead = personId(5);
    const person = { ...personBody(5, ['refund.unlinked']), role: 'lead' } as const;
    assert.deepEqual(await push([draft('staff.set', newId(), null, person)]), []);
    assert.deepEqual(await push([given(), given()], lead), []);
    assert.deepEqual(await push([given()], lead), ['refund/limit']);
    assert.deepEqual(await push([given()]), []);
  });

  describe('onto a card that is there', () => {
    const { setStamp: _stamp, ...terminal } = CARD_WAY;
    const reader = { ...terminal, id: newId(), method: 'card' } as const;
    before(async () => {
      assert.deepEqual(await push([draft('way.set', newId(), null, reader)]), []);
    });
    const onto = (more: Partial<MakeRefund> = {}, refund = newId()): Draft =>
      given({
        ...{ way: reader.id, drawer: null },
        card: { refund, scheme: 'Visa', last4: '4471', entry: 'tap', sealed: 'opaque' },
        ...more,
      });
    const refundOf = ({ body }: Draft): string =>
      (body as { money: { card: { refund: string } } }).money.card.refund;
    const decided = (made: Draft, device = 1) =>
      decidedRefund(t.database, BUSINESS, deviceId(device), refundOf(made));

    it('is asked for with what the reader sealed, by the device that wrote it, once it stands', async () => {
      const made = onto();
      assert.equal(await decided(made), 'card/not-decided');
      assert.deepEqual(await push([made]), []);
      const asked = { payment: null, sealed: 'opaque', amount: 105, currency: 'GBP' };
      assert.deepEqual(await decided(made), asked);
      assert.equal(await decided(made, 2), 'card/other-device');
      const refund = refundOf(made);
      const said = { refund, payment: refund, state: 'refunded', amount: 105, reason: '' } as const;
      const result = (): Draft => draft('refund.result', newId(), EVENT, said);
      assert.deepEqual(await push([result()]), ['refund/not-so']);
      await noteRefund(t.database, BUSINESS, refund, said);
      assert.deepEqual(await push([result()]), []);
      const rows = await settlingRows(t.database, books, BUSINESS, EVENT, NOW);
      assert.equal(rows?.refunds.find(({ id }) => id === refund)?.state, 'refunded');
    });

    it('does not go where whoever gave it was not allowed to, or gave more than they may', async () => {
      const helpers = onto();
      assert.deepEqual(await push([helpers], HELPER), ['right/missing']);
      assert.equal(await decided(helpers), 'card/not-decided');
      const tooMuch = onto();
      assert.deepEqual(await push([tooMuch], personId(5)), ['refund/limit']);
      assert.equal(await decided(tooMuch), 'card/not-decided');
    });

    it('goes by a way that takes cards, under an id that is of nothing else', async () => {
      const first = onto();
      assert.deepEqual(await push([first]), []);
      assert.deepEqual(await push([onto({}, refundOf(first))]), ['refund/again']);
      // Nor by whoever may not at all, whose entry would count.
      assert.deepEqual(await push([onto({}, refundOf(first))], HELPER), ['refund/again']);
      // What stands first is what is asked for.
      assert.equal(await decided(first).then((of) => typeof of), 'object');
      await soldByCard();
      const [payment] = await books.rows(BUSINESS, 'cardPayments', {});
      assert.deepEqual(await push([onto({}, payment!.id)]), ['refund/again']);
      const back = await backToCard(await soldByCard());
      const { money, ...body } = back.body as { money: { card: object }[] };
      const [part] = money;
      const stolen = [{ ...part!, card: { ...part!.card, refund: refundOf(first) } }];
      assert.deepEqual(await push([{ ...back, body: { ...body, money: stolen } }]), [
        'refund/again',
      ]);
      // A terminal of its own is told of it there by hand.
      assert.deepEqual(await push([onto({ way: CARD_WAY.id })]), ['payment/way']);
    });
  });
});

describe('money that goes back to a card', () => {
  it('is decided by a return that stands, for the device that wrote it', async () => {
    const sale = await soldByCard();
    const made = await backToCard(sale);
    const refund = refundIn(made);
    const decided = (n: number) => decidedRefund(t.database, BUSINESS, deviceId(n), refund);
    assert.equal(await decided(1), 'card/not-decided');
    assert.deepEqual(await push([made]), []);
    const [part] = (await saleDocument(t.database, books, BUSINESS, sale))!.payments;
    const ofPart = { payment: part!.id, sealed: '', currency: 'GBP' };
    assert.deepEqual(await decided(1), { ...ofPart, amount: amountIn(made) });
    assert.equal(await decided(2), 'card/other-device');
    assert.equal(
      await decidedRefund(t.database, 'another-business', deviceId(1), refund),
      'card/not-decided',
    );
  });

  it('is not believed to be back unless the acquirer said so to the server', async () => {
    const made = await backToCard(await soldByCard());
    assert.deepEqual(await push([made]), []);
    const refund = refundIn(made);
    const { card } = (made.body as { money: { card: { payment: string } }[] }).money[0]!;
    const { payment } = card;
    const said = { refund, payment, state: 'refunded', amount: 105, reason: '' } as const;
    const result = (): Draft => draft('refund.result', newId(), EVENT, said);
    assert.deepEqual(await push([result()]), ['refund/not-so']);
    const answer = { amount: 105, reason: '' };
    await noteRefund(t.database, BUSINESS, refund, { state: 'refunded', ...answer });
    // What it said first stands, and it is not asked again.
    const second = await noteRefund(t.database, BUSINESS, refund, { state: 'refused', ...answer });
    assert.equal(second.state, 'refunded');
    assert.deepEqual(await notedRefund(t.database, BUSINESS, refund), second);
    assert.equal(await notedRefund(t.database, 'another-business', refund), null);
    assert.deepEqual(await push([result()]), []);
    const [row] = await books.rows(BUSINESS, 'cardRefunds', { id: refund });
    assert.equal(row?.state, 'refunded');
  });

  it('waits for somebody to look where whoever took it back was not allowed to, or it is too much', async () => {
    const sale = await soldByCard();
    const made = await backToCard(sale);
    assert.deepEqual(await push([made], HELPER), ['right/missing']);
    const decided = () => decidedRefund(t.database, BUSINESS, deviceId(1), refundIn(made));
    assert.equal(await decided(), 'card/not-decided');
    const accepted = { looseEnd: `entry:${made.id}`, how: 'accepted', reason: 'seen' } as const;
    assert.deepEqual(await push([draft('looseEnd.settled', newId(), null, accepted)]), []);
    assert.notEqual(await decided(), 'card/not-decided');

    const rest = await backToCard(sale);
    const again = await backToCard(sale);
    assert.deepEqual(await push([rest]), []);
    assert.deepEqual(await push([again]), ['return/more']);
  });
});

describe('finding sales on the server', () => {
  const numbers = async (typed: string): Promise<readonly string[]> =>
    (await findSales(t.database, books, BUSINESS, typed)).map(({ sale }) => sale.number);

  it('goes by who sold or bought, the day, a reference and the last four of a card', async () => {
    const sale = await soldByCard();
    const [row] = await books.rows(BUSINESS, 'sales', { id: sale });
    const { number, slip } = row!;
    const { sequelize } = t.database;
    assert.deepEqual(await push([customerDraft(7, 'Wren', newId)]), []);
    await sequelize.query('UPDATE books_sales SET customer = ? WHERE id = ?', {
      replacements: [customerId(7), sale],
    });
    await sequelize.query("UPDATE books_payments SET reference = 'CH-20417' WHERE slip = ?", {
      replacements: [slip],
    });
    await sequelize.query("UPDATE books_card_payments SET last4 = '7719' WHERE slip = ?", {
      replacements: [slip],
    });
    for (const typed of ['wre', 'ch-204', '7719']) {
      assert.deepEqual(await numbers(typed), [number], typed);
    }
    assert.ok((await numbers('2026-11-22')).includes(number));
    assert.deepEqual(await numbers('2026-11-20'), []);
    const [owner] = await books.rows(BUSINESS, 'staff', { id: OWNER });
    assert.ok((await numbers(owner!.name)).includes(number));
    for (const typed of ['%', '_____', '7718', 'wren%'])
      assert.deepEqual(await numbers(typed), [], typed);
    await sequelize.query('UPDATE books_customers SET isErased = 1 WHERE id = ?', {
      replacements: [customerId(7)],
    });
    assert.deepEqual(await numbers('wren'), []);
  });

  it('finds a sale by whom it was for in truth', async () => {
    const sale = await soldByCard();
    const found = await saleDocument(t.database, books, BUSINESS, sale);
    assert.ok(found !== null);
    assert.deepEqual(await push([customerDraft(8, 'Quince', newId)]), []);
    const fix = { is: 'customer', customer: customerId(8) } as const;
    const made = correctSale({ ...found, newId, fix, reason: 'it was on their list' });
    assert.ok(made.ok);
    assert.deepEqual(await push(made.drafts), []);
    const all = await findSales(t.database, books, BUSINESS, 'quin');
    assert.deepEqual(
      all.map((each) => each.sale.id),
      [sale],
    );
  });

  it('finds the sale of a return by the number of the return', async () => {
    const sale = await soldByCard();
    const made = await backToCard(sale, { number: 9041 });
    assert.deepEqual(await push([made]), []);
    const found = await findSales(t.database, books, BUSINESS, 'd1-b9041');
    assert.deepEqual(
      found.map(({ sale: { id }, back }) => [id, back]),
      [[sale, amountIn(made)]],
    );
  });
});

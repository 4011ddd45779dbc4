/** What the server makes of entries whose writers were not allowed to write them. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import type { Draft } from '../../src/lib/core/daybook/chain';
import type { Entry } from '../../src/lib/core/daybook/entry';
import { draft } from '../../src/lib/core/daybook/kinds';
import { settleKept } from '../../src/lib/core/loose-end/kept-entry';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import {
  BUSINESS,
  deviceId,
  item,
  itemId,
  personBody,
  personId,
} from '../../src/lib/core/testing/made-up-business';
import { foundedDrafts } from '../../src/lib/core/testing/founded';
import { BookReader } from '../../src/lib/server/books/read-books';
import { append } from '../../src/lib/server/daybook/append';
import { keptEntries } from '../../src/lib/server/daybook/kept';
import { pull } from '../../src/lib/server/daybook/pull';
import { rebuild } from '../../src/lib/server/daybook/rebuild';
import { startAll } from '../support/start-all';
import { testDatabase, type TestDatabase } from '../support/test-database';

const now = Date.UTC(2026, 10, 22, 10);
const OWNER = personId(1);
const HELPER = personId(3);
/** Entries that the business is founded with. */
let FOUNDED = 0;
const ref = { business: BUSINESS, device: deviceId(1) };
const other = { business: BUSINESS, device: deviceId(2) };
let t: TestDatabase;
let books: BookReader;
let writer: DeviceWriter;
let at = now;

before(async () => {
  t = await testDatabase();
  books = new BookReader(t.database);
  for (const { device } of [ref, other]) await t.enrol(BUSINESS, device);
  writer = new DeviceWriter(1);
  const [owner, ...rest] = foundedDrafts(writer);
  await send([owner!], null);
  await send([...rest, price(450)], OWNER);
  FOUNDED = rest.length + 2;
});
after(() => t.end());

const send = async (drafts: readonly Draft[], by: string | null) =>
  await append(t.database, ref, writer.append(drafts, (at += 1000), by));

function price(minor: number): Draft {
  const { setStamp: _stamp, ...fields } = item(1, minor);
  return draft('item.set', writer.newId(), null, { ...fields, barcodes: [], taxes: [] });
}
const priceNow = async (): Promise<number | undefined> =>
  (await books.rows(BUSINESS, 'items', { id: itemId(1) }))[0]?.price;
const keptOf = async () => (await keptEntries(t.database, BUSINESS)).kept;
const takings = async (): Promise<number | undefined> =>
  (await books.rows(BUSINESS, 'eventTotals'))[0]?.takings;

describe('set-up by somebody without the right to it', () => {
  it('is kept, changes nothing, and goes to no other device', async () => {
    const answer = await send([price(1)], HELPER);
    assert.equal(answer.refused, null);
    assert.equal(answer.have, FOUNDED + 1);
    assert.deepEqual(
      answer.kept.map(({ code }) => code),
      ['right/missing'],
    );
    assert.match(answer.kept[0]!.message, /^item\.set: whoever wrote it was not allowed to change/);
    assert.equal(await priceNow(), 450);
    const { entries, latest, position } = await pull(t.database, other, 0);
    assert.deepEqual([entries.length, latest, position], [FOUNDED, FOUNDED + 1, FOUNDED + 1]);
  });

  it('is in the list that the owner looks through, with who wrote it', async () => {
    const [kept] = await keptOf();
    assert.deepEqual(
      [kept?.entry.kind, kept?.entry.by, kept?.state],
      ['item.set', HELPER, 'barred'],
    );
  });

  it('does not come in by working the books out again', async () => {
    await rebuild(t.database, BUSINESS);
    assert.equal(await priceNow(), 450);
    assert.equal((await keptOf()).length, 1);
  });

  it('does not come in with the rows that a new device starts from', async () => {
    const { rows } = await startAll(t.database, BUSINESS, now);
    assert.deepEqual(
      rows['items']?.map((row) => row['price']),
      [450, 210, 315, 420],
    );
  });

  it('does not hold up what comes after it', async () => {
    await send([price(500)], OWNER);
    assert.equal(await priceNow(), 500);
  });

  it('does not make an owner of a helper', async () => {
    const body = { ...personBody(3, []), role: 'owner' as const };
    await send([draft('staff.set', writer.newId(), null, body)], HELPER);
    const [helper] = await books.rows(BUSINESS, 'staff', { id: HELPER });
    assert.equal(helper?.role, 'helper');
    await send([price(1)], HELPER);
    assert.equal(await priceNow(), 500);
  });
});

describe('a sale with a larger discount than the seller may give', () => {
  /** £2.10 with 20p off, all figures true. */
  function discounted(): Draft[] {
    const [payment, sale] = writer.sale([[1, 2]], 0, now);
    const [line] = sale!.body['lines'] as Record<string, unknown>[];
    const lines = [{ ...line, discount: 20, net: 190, total: 190, tax: {} }];
    const cash = { ...payment!.body, clears: 190, charge: 190 };
    return [
      { ...payment!, body: cash },
      { ...sale!, body: { ...sale!.body, lines, taxes: [], total: 190 } },
    ];
  }

  it('counts, since the money was taken, and is marked', async () => {
    const answer = await send(discounted(), HELPER);
    assert.deepEqual(
      answer.kept.map(({ code }) => code),
      ['right/missing'],
    );
    assert.equal(await takings(), 190);
    const doubted = (await keptOf()).filter(({ state }) => state === 'doubted');
    assert.deepEqual(
      doubted.map(({ entry }) => [entry.kind, entry.by]),
      [['sale.rung', HELPER]],
    );
    await rebuild(t.database, BUSINESS);
    assert.equal(await takings(), 190);
  });

  it('is nothing to look at when an owner gives it', async () => {
    const before = (await keptOf()).length;
    assert.deepEqual((await send(discounted(), OWNER)).kept, []);
    assert.equal((await keptOf()).length, before);
  });
});

describe('what was not allowed, once it is settled', () => {
  const settle = async (how: 'accepted' | 'left out', state: string, by: string) => {
    const all = await keptOf();
    const kept = all.find((each) => each.state === state)!;
    const standing = (await books.rows(BUSINESS, 'items', { id: itemId(1) }))[0];
    const outcome = settleKept({
      newId: writer.newId,
      newSalt: () => 'sixteen-letters-',
      kept,
      how,
      reason: 'looked at the slip',
      standing,
      settlements: [],
    });
    assert.ok(outcome.ok);
    return await send(outcome.drafts, by);
  };

  it('is off the list, is on record, and the price that stood is said again', async () => {
    const before = (await keptOf()).length;
    const stood = await priceNow();
    await settle('left out', 'barred', OWNER);
    const after = await keptOf();
    assert.equal(after.length, before - 1);
    const [record] = await books.rows(BUSINESS, 'settlements');
    assert.deepEqual(
      [record?.how, record?.reason, record?.by],
      ['left out', 'looked at the slip', OWNER],
    );
    const { entries } = await pull(t.database, other, 0);
    const said = entries
      .map((text) => JSON.parse(text) as Entry)
      .filter(isPrice)
      .at(-1);
    assert.deepEqual([said?.body['price'], await priceNow()], [stood, stood]);
  });

  it('is not settled by somebody who may not, and that is a loose end itself', async () => {
    const before = (await keptOf()).length;
    assert.equal((await settle('accepted', 'doubted', HELPER)).kept.length, 1);
    assert.equal((await keptOf()).length, before + 1);
  });
});

const isPrice = ({ kind }: Entry): boolean => kind === 'item.set';

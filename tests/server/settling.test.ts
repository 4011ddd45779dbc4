/** Settling on the server: rows out of MariaDB, and an event that is settled only by what stands there. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { digestOf } from '../../src/lib/core/daybook/digest';
import { draft, type BodyOf } from '../../src/lib/core/daybook/kinds';
import { NO_FEE } from '../../src/lib/core/event/pitch-fee';
import { stageOf } from '../../src/lib/core/event/stage';
import { settleEvent } from '../../src/lib/core/settle/settle-event';
import { settlingOf, settlingSchema, type Settling } from '../../src/lib/core/settle/settling';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import {
  BUSINESS,
  deviceId,
  EVENT,
  eventBody,
  idOf,
  personId,
} from '../../src/lib/core/testing/made-up-business';
import { foundedDrafts } from '../../src/lib/core/testing/founded';
import { noteSeen } from '../../src/lib/server/access/devices';
import { BookReader } from '../../src/lib/server/books/read-books';
import { editionResults } from '../../src/lib/server/books/edition-results';
import { settlingRows } from '../../src/lib/server/books/settling-rows';
import type { Acquirer } from '../../src/lib/server/cards/acquirer';
import { reportOf } from '../../src/lib/server/cards/report';
import { append } from '../../src/lib/server/daybook/append';
import { rebuild } from '../../src/lib/server/daybook/rebuild';
import { testDatabase, type TestDatabase } from '../support/test-database';

const now = Date.UTC(2026, 10, 22, 10);
const LATER = now + 3 * 86_400_000;
const OWNER = personId(1);
let t: TestDatabase;
let books: BookReader;
let desk: DeviceWriter;
const ref = (n: number) => ({ business: BUSINESS, device: deviceId(n) });

const push = async (writer: DeviceWriter, drafts: readonly Draft[], by: string | null = OWNER) =>
  await append(t.database, ref(writer.number), writer.append(drafts, now, by), now);
async function settling(): Promise<Settling> {
  const rows = await settlingRows(t.database, books, BUSINESS, EVENT, LATER);
  assert.ok(rows !== null);
  // As the page has it.
  return settlingSchema.parse(settlingOf(rows));
}
const codes = async (): Promise<readonly string[]> =>
  (await settling()).ends.map(({ code }) => code);
const accept = async (): Promise<void> => {
  const { ends } = await settling();
  const drafts = ends.map(({ looseEnd }) =>
    draft('looseEnd.settled', desk.newId(), null, { looseEnd, how: 'accepted', reason: 'so' }),
  );
  assert.deepEqual((await push(desk, drafts)).kept, []);
};
async function settled(): Promise<Draft> {
  const now_ = await settling();
  const outcome = settleEvent({
    newId: desk.newId,
    ...{ event: EVENT, settling: now_, toSend: 0, isAddendum: now_.settled !== null },
  });
  assert.ok(outcome.ok, JSON.stringify(outcome));
  return outcome.drafts[0]!;
}

before(async () => {
  t = await testDatabase();
  books = new BookReader(t.database);
  desk = new DeviceWriter(1);
  for (const n of [1, 2]) await t.enrol(BUSINESS, deviceId(n));
  const [owner, ...rest] = foundedDrafts(desk);
  await push(desk, [owner!], null);
  assert.deepEqual((await push(desk, rest)).kept, []);
  assert.deepEqual((await push(desk, desk.sale([[1, 2]], 0, now))).kept, []);
});
after(() => t.end());

describe('an event in MariaDB', () => {
  it('has its trial balance, to the minor unit, and again after its books were worked out anew', async () => {
    const { balances, result } = await settling();
    assert.equal(
      balances.reduce((sum, { amount }) => sum + amount, 0),
      0,
    );
    assert.equal(result.takings, 210);
    await rebuild(t.database, BUSINESS);
    assert.deepEqual((await settling()).balances, balances);
    assert.equal(await settlingRows(t.database, books, BUSINESS, idOf(2, 9), LATER), null);
  });

  it('names a drawer that was not counted, and a device that says it has more', async () => {
    assert.deepEqual(await codes(), ['drawer/open']);
    await noteSeen(t.database, ref(1), 99, LATER);
    assert.deepEqual(await codes(), ['device/not-sent', 'drawer/open']);
    await noteSeen(t.database, ref(1), 1, LATER + 1);
    assert.deepEqual(await codes(), ['drawer/open']);
  });

  it('is settled only by what stands there: not when something came in between, nor by other figures', async () => {
    await accept();
    const before = await settled();
    // Another device sells before it arrives.
    const phone = new DeviceWriter(2);
    await push(phone, phone.sale([[2, 1]], 0, now), personId(3));
    const late = await push(desk, [before]);
    assert.deepEqual(
      late.kept.map(({ code }) => code),
      ['settled/heads'],
    );
    // That it was tried is a loose end itself.
    assert.deepEqual(await codes(), ['entry/kept']);
    await accept();
    const body = (await settled()).body as BodyOf<'event.settled'>;
    const { heads, leftOut } = body;
    const facts = { event: EVENT, balances: [], heads, leftOut };
    const forged = { ...body, ...facts, digest: digestOf(facts) };
    const wrong = await push(desk, [draft('event.settled', desk.newId(), EVENT, forged)]);
    assert.deepEqual(
      wrong.kept.map(({ code }) => code),
      ['settled/balances'],
    );
    assert.equal((await settling()).settled, null);
  });

  it('is settled, and what comes after is a loose end until it is added', async () => {
    await accept();
    assert.deepEqual((await push(desk, [await settled()])).kept, []);
    const [event] = await books.rows(BUSINESS, 'events', { id: EVENT });
    assert.equal(stageOf(event!), 'settled');
    assert.deepEqual(await codes(), []);
    const phone = await push(desk, desk.sale([[1, 1]], 0, now));
    assert.deepEqual(phone.kept, []);
    assert.deepEqual(await codes(), ['settled/changed']);
    const again = await settled();
    assert.equal((again.body as BodyOf<'event.settled'>).isAddendum, true);
    assert.deepEqual((await push(desk, [again])).kept, []);
    assert.deepEqual(await codes(), []);
  });
});

describe('editions before', () => {
  it('are asked for with what each left, as its own page has it', async () => {
    const series = idOf(40, 1);
    const [before, other] = [idOf(6, 71), idOf(6, 72)];
    const on = (date: string) => ({ days: [{ date, opens: '09:00', closes: '13:00' }], series });
    const costs = [{ what: 'Diesel', each: 2500, per: 'once', many: 1000 } as const];
    assert.deepEqual(
      (
        await push(desk, [
          draft('event.set', desk.newId(), EVENT, { ...eventBody('Fair'), series }),
          draft('event.set', desk.newId(), before, {
            ...{ ...eventBody('Fair'), id: before, ...on('2026-10-22') },
          }),
          draft('event.costs', desk.newId(), before, { event: before, fee: NO_FEE, costs }),
          // Another time, not of the series.
          draft('event.set', desk.newId(), other, {
            ...{ ...eventBody('Fair'), id: other, ...on('2026-09-22'), series: null },
          }),
        ])
      ).kept,
      [],
    );
    assert.deepEqual(await editionResults(t.database, books, BUSINESS, EVENT, LATER), [
      { id: before, left: -2500, perHour: -625, isSettled: false },
    ]);
    assert.deepEqual(await editionResults(t.database, books, BUSINESS, before, LATER), []);
    assert.equal(await editionResults(t.database, books, BUSINESS, idOf(6, 99), LATER), null);
  });
});

describe('a report', () => {
  it('has lines of this business alone, by our own names', async () => {
    const line = {
      ...{ id: 'a', sort: 'payment', amount: 5, fee: 0, scheme: '', last4: '', payout: '' },
      ...{ at: '2026-11-22T10:00:00Z', payoutDay: '' },
    } as const;
    const said = {
      source: 'acquirer',
      lines: [
        { ...line, reference: `${BUSINESS}:${idOf(40, 1)}` },
        { ...line, id: 'b', reference: `${idOf(1, 2)}:${idOf(40, 2)}` },
        { ...line, id: 'c', reference: '' },
      ],
    };
    const acquirer = { report: () => Promise.resolve(said) } as unknown as Acquirer;
    const report = await reportOf(acquirer, BUSINESS, '2026-11-22');
    assert.deepEqual(
      report?.lines.map(({ reference }) => reference),
      [idOf(40, 1)],
    );
    const away = { report: () => Promise.resolve(null) } as unknown as Acquirer;
    assert.equal(await reportOf(away, BUSINESS, '2026-11-22'), null);
  });
});

/** The bank on the server: lines, what they are, money that is taken back, and what no other device hears of. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { asCamt053, BankAccount } from '../../standins/bank/accounts.mjs';
import { joinBank, noneOfOurs, takeApart } from '../../src/lib/core/bank/join-bank';
import { knownLinesSchema, lookAt, takeStatement } from '../../src/lib/core/bank/take-statement';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { draft } from '../../src/lib/core/daybook/kinds';
import { allLooseEndsSchema } from '../../src/lib/core/settle/event-loose-ends';
import { bankNowSchema } from '../../src/lib/core/bank/bank-now';
import { settlingOf } from '../../src/lib/core/settle/settling';
import { readCamt053 } from '../../src/lib/core/formats/camt053';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import {
  BUSINESS,
  CARD_WAY,
  deviceId,
  EVENT,
  idOf,
  personId,
} from '../../src/lib/core/testing/made-up-business';
import { foundedDrafts } from '../../src/lib/core/testing/founded';
import { allLooseEnds } from '../../src/lib/server/books/all-loose-ends';
import { bankNow, knownLines } from '../../src/lib/server/books/bank-rows';
import { BookReader } from '../../src/lib/server/books/read-books';
import { settlingRows } from '../../src/lib/server/books/settling-rows';
import { append } from '../../src/lib/server/daybook/append';
import { pull } from '../../src/lib/server/daybook/pull';
import { rebuild } from '../../src/lib/server/daybook/rebuild';
import { testDatabase, type TestDatabase } from '../support/test-database';

const now = Date.UTC(2026, 10, 22, 10);
const LATER = now + 3 * 86_400_000;
const OWNER = personId(1);
const ACCOUNT = { id: idOf(75, 1), name: 'Market account', number: 'GB33BUKB20201555555555' };
const accounts = [ACCOUNT];
let t: TestDatabase;
let books: BookReader;
let desk: DeviceWriter;
const ref = (n: number) => ({ business: BUSINESS, device: deviceId(n) });

const push = async (drafts: readonly Draft[], by: string | null = OWNER) =>
  await append(t.database, ref(1), desk.append(drafts, LATER, by), LATER);
/** As the page has it. */
const bank = async () => bankNowSchema.parse(await bankNow(t.database, books, BUSINESS, '', LATER));
const statement = (lines: readonly (readonly [string, number, string])[]) => {
  const account = new BankAccount(ACCOUNT.number, 'GBP', 0);
  for (const [day, amount, reference] of lines)
    account.book({ day, amount, reference, text: '', other: 'Acquirer' });
  const read = readCamt053(asCamt053(account, account.statement('2026-11-01', '2026-11-30'), 2));
  assert.ok(read.ok);
  return read.statements[0]!;
};
const take = async (lines: readonly (readonly [string, number, string])[]) => {
  const known = await knownLines(t.database, BUSINESS, '2026-11-01', '2026-11-30');
  // As a device takes it from the server.
  assert.deepEqual(knownLinesSchema.parse({ lines: known }), { lines: known });
  const look = lookAt(statement(lines), {
    ...{ business: BUSINESS, currency: 'GBP', accounts, chosen: null, known },
  });
  assert.deepEqual(look.faults, []);
  assert.deepEqual(
    (await push(takeStatement(desk.newId, ACCOUNT.id, 'nov.xml', look.fresh))).kept,
    [],
  );
  return look;
};
const owed = async (): Promise<number> =>
  (await books.rows(BUSINESS, 'eventAccounts', { event: EVENT })).find(
    ({ account }) => account === `owed:${CARD_WAY.id}`,
  )?.amount ?? 0;

before(async () => {
  t = await testDatabase();
  books = new BookReader(t.database);
  desk = new DeviceWriter(1);
  for (const n of [1, 2]) await t.enrol(BUSINESS, deviceId(n));
  const [owner, ...rest] = foundedDrafts(desk);
  await push([owner!], null);
  assert.deepEqual((await push(rest)).kept, []);
  // A card paid a part of it, which is still to come.
  const paid = { goods: 3, clears: 100, tip: 0, isGivenBack: false, isVoided: false };
  await push(desk.parts(paid, LATER, OWNER));
  assert.ok((await owed()) >= 50);
});
after(() => t.end());

describe('the bank', () => {
  it('takes lines of an account that there is, and the same ones once', async () => {
    const stray = takeStatement(
      desk.newId,
      ACCOUNT.id,
      'x',
      statement([['2026-11-24', 5, 'a']]).lines,
    );
    assert.deepEqual(
      (await push(stray)).kept.map(({ code }) => code),
      ['bank/account'],
    );
    const { id, name, number } = ACCOUNT;
    const set = { id, name, number, columns: null, isActive: true };
    assert.deepEqual((await push([draft('bank.set', desk.newId(), null, set)])).kept, []);
    await take([['2026-11-24', 1500, 'PO-1']]);
    const again = await take([
      ['2026-11-24', 1500, 'PO-1'],
      ['2026-11-25', -900, 'rent'],
    ]);
    assert.deepEqual([again.fresh.length, again.known], [1, 1]);
    assert.deepEqual(
      (await bank()).open.map(({ amount, left }) => [amount, left]),
      [
        [-900, -900],
        [1500, 1500],
      ],
    );
  });

  it('has what is none of ours, and what was said of it can be said again', async () => {
    const line = (await bank()).open.find(({ amount }) => amount === -900)!;
    const made = noneOfOurs(desk.newId, line, 0, 'rent at home');
    assert.ok(made.ok);
    await push(made.drafts);
    assert.deepEqual(
      (await bank()).done.map(({ joins }) => joins[0]?.why),
      ['rent at home'],
    );
    const apart = takeApart(desk.newId, line.id, null, false);
    assert.ok(apart.ok);
    await push(apart.drafts);
    assert.equal((await bank()).done.length, 0);
    await push(made.drafts.map((each) => ({ ...each, id: desk.newId() })));
  });

  it('joins money once, and takes it back with the line', async () => {
    const before = await owed();
    const came = desk.newId();
    const body = {
      ...{ day: '2026-11-24', amount: 50, fees: 0, payments: [], what: 'PO-1' },
      from: [{ account: `owed:${CARD_WAY.id}`, amount: 50 }],
    };
    assert.deepEqual((await push([draft('money.came', came, EVENT, body)])).kept, []);
    const { open, money } = await bank();
    const line = open.find(({ amount }) => amount === 1500)!;
    const of = money.find(({ key }) => key === `money ${came}`)!;
    const made = joinBank({
      ...{ newId: desk.newId, line, open: of, typed: '0.50', currency: 'GBP', rest: 'to come' },
    });
    assert.ok(made.ok);
    assert.deepEqual((await push(made.drafts)).kept, []);
    assert.equal((await bank()).open.find(({ id }) => id === line.id)?.left, 1450);
    // The same sum is not another line's too.
    const more = { line: idOf(70, 9), money: came, amount: 1, why: '' };
    assert.deepEqual(
      (await push([draft('bank.joined', desk.newId(), null, more)])).kept.map(({ code }) => code),
      ['bank/line'],
    );
    const twice = { line: (await bank()).done[0]!.id, money: came, amount: 50, why: '' };
    assert.deepEqual(
      (await push([draft('bank.joined', desk.newId(), null, twice)])).kept.map(({ code }) => code),
      ['bank/more'],
    );
    const written = (await bank()).written.find(({ id }) => id === came)!;
    const apart = takeApart(desk.newId, line.id, written, true);
    assert.ok(apart.ok);
    assert.deepEqual((await push(apart.drafts)).kept, []);
    assert.equal(await owed(), before);
    const undone = apart.drafts.at(-1)!;
    assert.deepEqual(
      (await push([{ ...undone, id: desk.newId() }])).kept.map(({ code }) => code),
      ['money/again'],
    );
    const other = { takes: { of: idOf(90, 1), postings: [] }, why: 'so' };
    assert.deepEqual(
      (await push([draft('money.undone', desk.newId(), EVENT, other)])).kept.map(
        ({ code }) => code,
      ),
      ['money/unknown'],
    );
  });

  it('is heard of by no other device, and its chain goes on all the same', async () => {
    const heard = await pull(t.database, ref(2), 0);
    const kinds = heard.entries.map((text) => (JSON.parse(text) as { kind: string }).kind);
    assert.ok(!kinds.some((kind) => kind.startsWith('bank.')));
    assert.ok(kinds.includes('sale.rung') || kinds.includes('business.set'));
    const passed = heard.passed.filter(({ device }) => device === deviceId(1));
    assert.ok(passed.length >= 4);
  });

  it('comes out the same when the books are worked out anew', async () => {
    const before = JSON.stringify(await bank());
    await rebuild(t.database, BUSINESS);
    assert.equal(JSON.stringify(await bank()), before);
  });
});

describe('what is handed in', () => {
  it('is handed in once, by its payments and by its paying-in slip', async () => {
    const slip = (what: string, payments: readonly string[]) =>
      draft('handed.in', desk.newId(), EVENT, {
        ...{ way: CARD_WAY.id, day: '2026-11-24', amount: 50, payments: [...payments], what },
      });
    const codes = async (each: Draft) => (await push([each])).kept.map(({ code }) => code);
    assert.deepEqual(await codes(slip('slip 7', [idOf(41, 1)])), []);
    assert.deepEqual(await codes(slip('slip 7', [])), ['handed/again']);
    assert.deepEqual(await codes(slip('slip 8', [idOf(41, 2), idOf(41, 1)])), ['handed/again']);
    assert.deepEqual(await codes(slip('slip 8', [idOf(41, 2)])), []);
    const rows = await books.rows(BUSINESS, 'handedIn', { event: EVENT });
    assert.equal(rows.length, 2);
  });
});

describe('what people are owed and look after', () => {
  it('is in the settling of the event, and among the loose ends of all of them', async () => {
    const pay = { person: OWNER, wage: 1200, commission: '10' };
    assert.deepEqual((await push([draft('staff.pay', desk.newId(), null, pay)])).kept, []);
    const rows = await settlingRows(t.database, books, BUSINESS, EVENT, LATER);
    assert.ok(rows !== null);
    assert.deepEqual(
      rows.staffPay.map(({ wage, commission }) => [wage, commission]),
      [[1200, '10']],
    );
    const [end] = settlingOf(rows).ends;
    assert.ok(end !== undefined);
    const hand = { looseEnd: end.looseEnd, to: OWNER, note: 'tonight' };
    await push([draft('looseEnd.handed', desk.newId(), null, hand)]);
    // As a device takes it from the server.
    const answer = await allLooseEnds(t.database, books, BUSINESS, LATER);
    const { events, hands } = allLooseEndsSchema.parse(answer);
    assert.deepEqual(events, answer.events);
    const found = events.find(({ event }) => event === EVENT);
    assert.deepEqual(
      hands.map(({ looseEnd, to, note }) => ({ looseEnd, to, note })),
      [hand],
    );
    assert.ok(found?.ends.some(({ looseEnd }) => looseEnd === end.looseEnd));
  });
});

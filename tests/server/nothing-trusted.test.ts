/** What arrives is not trusted: stamps, kinds from the future, sizes, numbers, cards, and what is handed out. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { hashOf, type Draft } from '../../src/lib/core/daybook/chain';
import { clockOf } from '../../src/lib/core/daybook/clock';
import type { Entry } from '../../src/lib/core/daybook/entry';
import { draft, privateDraft } from '../../src/lib/core/daybook/kinds';
import { reversalBody } from '../../src/lib/core/sale/give-parts-back';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import {
  BUSINESS,
  CARD_WAY,
  deviceId,
  EVENT,
  eventBody,
  idOf,
  item,
  itemId,
  personBody,
  personId,
} from '../../src/lib/core/testing/made-up-business';
import { foundedDrafts, goods } from '../../src/lib/core/testing/founded';
import { putAside } from '../../src/lib/server/access/devices';
import { BookReader } from '../../src/lib/server/books/read-books';
import type { Acquirer, AcquirerAnswer } from '../../src/lib/server/cards/acquirer';
import { noteAnswer, noteAsked } from '../../src/lib/server/cards/cards-asked';
import { chargedUnwritten, checkCards } from '../../src/lib/server/cards/check-cards';
import { decidedHold, mayCancel } from '../../src/lib/server/cards/may-undo';
import { select } from '../../src/lib/server/database/select';
import { append } from '../../src/lib/server/daybook/append';
import { judgeAllKept } from '../../src/lib/server/daybook/judge-kept';
import { keptEntries } from '../../src/lib/server/daybook/kept';
import { photosAfter } from '../../src/lib/server/daybook/photos';
import { pull } from '../../src/lib/server/daybook/pull';
import { MOST_A_DAY, OverQuotaError } from '../../src/lib/server/daybook/quotas';
import { rebuild } from '../../src/lib/server/daybook/rebuild';
import { startAll } from '../support/start-all';
import { testDatabase, type TestDatabase } from '../support/test-database';

const now = Date.UTC(2026, 10, 22, 10);
const YEAR = 365 * 86_400_000;
const [OWNER, HELPER] = [personId(1), personId(3)];
let t: TestDatabase;
let books: BookReader;
/** Person 1's device, person 3's, and one that only looks. */
let desk: DeviceWriter;
let phone: DeviceWriter;
const refOf = (n: number) => ({ business: BUSINESS, device: deviceId(n) });

before(async () => {
  t = await testDatabase();
  books = new BookReader(t.database);
  [desk, phone] = [new DeviceWriter(1), new DeviceWriter(2)];
  for (const n of [1, 2, 3]) await t.enrol(BUSINESS, deviceId(n));
  const [owner, ...rest] = foundedDrafts(desk);
  await push(desk, [owner!], null);
  assert.deepEqual((await push(desk, rest, OWNER)).kept, []);
});
after(() => t.end());

const push = async (
  writer: DeviceWriter,
  drafts: readonly Draft[],
  by: string | null,
  at = now,
  arrival = now,
) => await append(t.database, refOf(writer.number), writer.append(drafts, at, by), arrival);
const price = async (n = 1): Promise<number | undefined> =>
  (await books.rows(BUSINESS, 'items', { id: itemId(n) }))[0]?.price;
const keptOf = async () => (await keptEntries(t.database, BUSINESS)).kept;
const stateOf = async (id: string): Promise<string | undefined> =>
  (
    await select<{ state: string }>(t.database, 'SELECT state FROM daybook_entries WHERE id = ?', [
      id,
    ])
  )[0]?.state;

describe('a stamp from the future', () => {
  it('is held to arrival: the owner’s later change wins, here, elsewhere and in rebuilt books', async () => {
    const wrong = await push(desk, [goods(desk, 1, 777)], OWNER, now + 70 * YEAR, now + 1000);
    assert.equal(wrong.held.length, 1);
    assert.ok(clockOf(wrong.held[0]!.stamp).millis <= now + 1000);
    assert.equal(await price(), 777);
    // Another device of the owner, whose clock is right, a minute later.
    const other = new DeviceWriter(4);
    await t.enrol(BUSINESS, deviceId(4));
    const right = await push(other, [goods(other, 1, 105)], OWNER, now + 61_000, now + 61_000);
    assert.deepEqual([right.kept, right.held], [[], []]);
    assert.equal(await price(), 105);
    await rebuild(t.database, BUSINESS);
    assert.equal(await price(), 105);
    const { entries } = await pull(t.database, refOf(3), 0);
    const handed = entries.map((text) => JSON.parse(text) as Entry).filter(({ held }) => held);
    assert.deepEqual(
      handed.map(({ held }) => held),
      [wrong.held[0]!.stamp],
    );
    // What was held is not part of what was hashed.
    assert.equal(hashOf(handed[0]!), handed[0]!.hash);
  });

  it('comes after all that was accepted before, and the device hears of it again if it asks again', async () => {
    const entries = desk.append([goods(desk, 1, 888), goods(desk, 1, 999)], now + 70 * YEAR, OWNER);
    const first = await append(t.database, refOf(1), entries, now + 62_000);
    assert.equal(await price(), 999);
    const again = await append(t.database, refOf(1), entries, now + 90_000);
    assert.deepEqual(again.held, first.held);
    // Its clock is put right; its stamps cannot go back, and are held all the same.
    const later = await push(desk, [goods(desk, 1, 105)], OWNER, now + 95_000, now + 95_000);
    assert.deepEqual([later.kept.length, later.held.length, await price()], [0, 1, 105]);
  });

  it('that no device sends by itself is not believed: `held` is the server’s word', async () => {
    const [entry] = phone.append([goods(phone, 1, 1)], now + 96_000, HELPER);
    const forged = { ...entry!, held: `${'0'.repeat(12)}-0000-${deviceId(2)}` };
    const answer = await append(t.database, refOf(2), [forged], now + 96_000);
    const [row] = await select<{ held: string; entry: string }>(
      t.database,
      'SELECT held, entry FROM daybook_entries WHERE id = ?',
      [entry!.id],
    );
    assert.deepEqual([answer.refused, row?.held, row?.entry.includes('held')], [null, '', false]);
  });
});

describe('a kind or version from the future', () => {
  /** As a helper's tampered device would write it: what the next version will take for an owner. */
  const future = (writer: DeviceWriter, what: Draft, by: string): Entry => {
    const [entry] = writer.append([{ ...what, v: 999 }], now + 100_000, by);
    return entry!;
  };
  /** As if this version were the next one: what it could not read is now of a version it knows. */
  const upgrade = async (id: string): Promise<void> => {
    const [row] = await select<{ entry: string }>(
      t.database,
      'SELECT entry FROM daybook_entries WHERE id = ?',
      [id],
    );
    const entry = { ...(JSON.parse(row!.entry) as Entry), v: 3 };
    await t.database.sequelize.query('UPDATE daybook_entries SET entry = ? WHERE id = ?', {
      replacements: [JSON.stringify(entry), id],
    });
  };

  it('is kept, handed out to nobody, and judged when it can be read: nobody becomes an owner', async () => {
    const person = draft('staff.set', phone.newId(), null, {
      ...personBody(3, []),
      role: 'owner',
    });
    const entry = future(phone, person, HELPER);
    const { kept } = await append(t.database, refOf(2), [entry], now + 100_000);
    assert.deepEqual(
      kept.map(({ state, code }) => [state, code]),
      [['unread', 'kind/newer']],
    );
    const { entries } = await pull(t.database, refOf(3), 0);
    assert.ok(!entries.some((text) => text.includes(entry.id)));
    await upgrade(entry.id);
    assert.equal(await judgeAllKept(t.database, now + 100_000), 1);
    assert.equal(await stateOf(entry.id), 'barred');
    const [helper] = await books.rows(BUSINESS, 'staff', { id: HELPER });
    assert.equal(helper?.role, 'helper');
    await rebuild(t.database, BUSINESS);
    const [still] = await books.rows(BUSINESS, 'staff', { id: HELPER });
    assert.deepEqual([still?.role, await stateOf(entry.id)], ['helper', 'barred']);
  });

  it('that may be written is taken up once, and reaches devices that have all that followed it', async () => {
    const person = draft('staff.set', desk.newId(), null, {
      ...personBody(3, []),
      name: 'Renamed',
    });
    const entry = future(desk, person, OWNER);
    await append(t.database, refOf(1), [entry], now + 101_000);
    await push(desk, [goods(desk, 2, 210)], OWNER, now + 102_000, now + 102_000);
    const seen = await pull(t.database, refOf(3), 0);
    await upgrade(entry.id);
    const taken = await Promise.all([0, 1].map(() => judgeAllKept(t.database, now + 103_000)));
    assert.equal(taken[0]! + taken[1]!, 1);
    const more = await pull(t.database, refOf(3), seen.position);
    const [late] = more.entries.map((text) => JSON.parse(text) as Entry);
    assert.deepEqual([more.entries.length, late?.id, late?.late], [1, entry.id, true]);
    const [named] = await books.rows(BUSINESS, 'staff', { id: HELPER });
    assert.equal(named?.name, 'Renamed');
  });
});

describe('how large it may be', () => {
  it('an entry of more than 64 kB is refused, whatever it is; a picture may be larger', async () => {
    const goodsOf = Array.from({ length: 1100 }, (_, n) => ({ item: idOf(6, n), quantity: 1000 }));
    const body = { reason: 'loaded', from: 'base', to: EVENT, goods: goodsOf, note: '' } as const;
    const large = new DeviceWriter(5);
    await t.enrol(BUSINESS, deviceId(5));
    const [entry] = large.append([draft('stock.moved', large.newId(), EVENT, body)], now, OWNER);
    const answer = await append(t.database, refOf(5), [entry!], now);
    assert.deepEqual([answer.refused?.code, answer.have], ['entry/too-large', 0]);
    const picture = `data:image/webp;base64,${'A'.repeat(80_000)}`;
    const photo = draft('photo.set', desk.newId(), null, { item: itemId(1), picture });
    const taken = await push(desk, [photo], OWNER, now + 110_000, now + 110_000);
    assert.deepEqual([taken.refused, taken.kept], [null, []]);
  });

  it('a device sends no more in a day than one holds, and the rest the day after', async () => {
    const day = new Date(now).toISOString().slice(0, 10);
    await t.database.sequelize.query(
      'INSERT INTO daybook_quotas (business, device, day, entries, bytes) VALUES (?, ?, ?, ?, 0) ' +
        'ON DUPLICATE KEY UPDATE entries = VALUES(entries)',
      { replacements: [BUSINESS, deviceId(2), day, MOST_A_DAY.entries] },
    );
    const entries = phone.append(phone.sale([[1, 1]], 0, now + 120_000), now + 120_000, HELPER);
    await assert.rejects(append(t.database, refOf(2), entries, now + 120_000), OverQuotaError);
    const next = await append(t.database, refOf(2), entries, now + 86_400_000);
    assert.deepEqual([next.refused, next.kept], [null, []]);
    await t.database.sequelize.query('DELETE FROM daybook_quotas');
  });

  it('a shut-out device leaves no more than there is room for', async () => {
    const many = new DeviceWriter(6);
    const note = 'x'.repeat(400);
    const body = { reason: 'lost', from: 'base', to: 'gone:lost', note } as const;
    const move = (): Draft =>
      draft('stock.moved', many.newId(), null, {
        ...body,
        goods: Array.from({ length: 600 }, (_, n) => ({ item: idOf(6, n), quantity: 1000 })),
      });
    let put = 0;
    for (; put < 50; put += 1) {
      const entries = many.append(Array.from({ length: 20 }, move), now, HELPER);
      if (!(await putAside(t.database, refOf(6), entries))) break;
    }
    const [there] = await select<{ bytes: string }>(
      t.database,
      'SELECT SUM(LENGTH(entry)) AS bytes FROM access_unsent WHERE device = ?',
      [deviceId(6)],
    );
    assert.ok(put > 5 && put < 50 && Number(there?.bytes) <= 20_000_000);
    await t.database.sequelize.query('DELETE FROM access_unsent');
  });

  it('a pull ends at about a megabyte, and the next one goes on', async () => {
    const picture = `data:image/webp;base64,${'A'.repeat(80_000)}`;
    for (let n = 0; n < 4; n += 1) {
      const photos = [0, 1, 2, 3, 4].map((k) =>
        draft('photo.set', desk.newId(), null, { item: idOf(6, 50 + n * 5 + k), picture }),
      );
      await push(desk, photos, OWNER, now + 130_000 + n, now + 130_000 + n);
    }
    let [position, answers, seen] = [0, 0, 0];
    for (;;) {
      const { entries, position: next, latest } = await pull(t.database, refOf(3), position);
      assert.ok(entries.reduce((all, text) => all + text.length, 0) < 1_200_000);
      [position, answers, seen] = [next, answers + 1, seen + entries.length];
      if (next >= latest) break;
    }
    const [all] = await select<{ n: string }>(
      t.database,
      "SELECT COUNT(*) AS n FROM daybook_entries WHERE device <> ? AND state IN ('applied', 'doubted')",
      [deviceId(3)],
    );
    assert.ok(answers >= 2);
    assert.equal(seen, Number(all?.n));
  });
});

describe('what a new device starts from', () => {
  it('is without pictures, which follow by themselves for goods that are sold', async () => {
    const { rows } = await startAll(t.database, BUSINESS, now);
    assert.equal(rows['photos'], undefined);
    const { photos, next } = await photosAfter(t.database, BUSINESS, '');
    assert.deepEqual(
      [photos.map(({ id }) => id), next],
      [[itemId(1)], null],
      'twenty more are of goods that nobody set up',
    );
  });

  it('is without what is over: documents, sums and cards of long ago, slips that are gone', async () => {
    const sold = phone.sale([[2, 1]], 0, now + 140_000);
    const slip = idOf(20, 5);
    const kept = { id: slip, sort: 'aside', name: 'x', customer: null, group: null } as const;
    const set = { ...kept, discount: null, service: null, note: '', back: [], handsOver: null };
    const drafts = [
      ...sold,
      draft('slip.set', phone.newId(), EVENT, set),
      draft('slip.gone', phone.newId(), EVENT, { slip, why: 'emptied', known: [] }),
      draft('payment.asked', phone.newId(), EVENT, {
        payment: idOf(40, 1),
        slip,
        way: CARD_WAY.id,
        amount: 100,
      }),
      draft('payment.asked', phone.newId(), EVENT, {
        payment: idOf(40, 2),
        slip,
        way: CARD_WAY.id,
        amount: 100,
      }),
      draft('payment.result', phone.newId(), EVENT, {
        payment: idOf(40, 2),
        state: 'declined',
        amount: 0,
        approval: '',
        acquirer: '',
        reason: 'no',
      }),
    ];
    const pushed = await push(phone, drafts, HELPER, now + 140_000, now + 86_400_000);
    assert.deepEqual(pushed.kept, []);
    const recent = await startAll(t.database, BUSINESS, now + 86_400_000);
    assert.ok((recent.rows['sales'] ?? []).length >= 2);
    assert.equal(recent.rows['slips'], undefined);
    assert.equal((recent.rows['cardPayments'] ?? []).length, 2);
    const later = await startAll(t.database, BUSINESS, now + 60 * 86_400_000);
    for (const table of ['sales', 'saleLines', 'payments', 'slips', 'slipLines'])
      assert.equal(later.rows[table], undefined, table);
    // Of a clock that was years ahead there are a few.
    assert.ok((later.rows['acts'] ?? []).every((act) => String(act['at']) > '2027'));
    assert.deepEqual(later.rows['eventItems'], []);
    // What nobody has said anything of yet is still to be seen to, however old it is.
    assert.deepEqual(
      (later.rows['cardPayments'] ?? []).map(({ id }) => id),
      [idOf(40, 1)],
    );
    assert.equal((later.rows['eventTotals'] ?? []).length, 1);
  });

  it('comes in pages that together are the same', async () => {
    const many = Array.from({ length: 900 }, (_, n) => {
      const { setStamp: _stamp, ...fields } = item(1000 + n, 100);
      return draft('item.set', desk.newId(), null, {
        ...fields,
        description: 'd'.repeat(400),
        taxes: [],
      });
    });
    for (let at = 0; at < many.length; at += 200)
      await push(desk, many.slice(at, at + 200), OWNER, now + 150_000 + at, now + 150_000 + at);
    const { rows } = await startAll(t.database, BUSINESS, now);
    const items = await books.rows(BUSINESS, 'items');
    assert.deepEqual(rows['items'], JSON.parse(JSON.stringify(items)));
  });
});

describe('a card payment', () => {
  const pays = (writer: DeviceWriter, payment: string, state = 'captured'): readonly Draft[] => [
    draft('payment.asked', writer.newId(), EVENT, {
      payment,
      slip: idOf(20, 9),
      way: CARD_WAY.id,
      amount: 1018,
    }),
    {
      ...draft('payment.taken', payment, EVENT, {
        slip: idOf(20, 9),
        way: CARD_WAY.id,
        wayName: 'Card',
        method: 'own',
        side: 'card',
        drawer: null,
        clears: 1000,
        charge: 1000,
        surcharge: 18,
        tip: 0,
        change: 0,
        rounding: 0,
        reference: '',
        customer: null,
        share: null,
        card: {
          scheme: 'Visa',
          last4: '4471',
          entry: 'tap',
          state: state as 'captured',
          approval: '1',
          acquirer: 'a',
          sealed: '',
          expires: '',
          voice: '',
          isOverLimit: false,
          isSigned: false,
        },
      }),
    },
  ];
  const reversed = (writer: DeviceWriter, payment: string, surcharge = 18): Draft => {
    const part = { id: payment, slip: idOf(20, 9), way: CARD_WAY.id, drawer: null, card: {} };
    const sums = { clears: 1000, charge: 1000, surcharge, tip: 0, change: 0, rounding: 0 };
    const body = reversalBody({ ...part, ...sums, side: 'card', by: null }, 'left');
    return draft('payment.reversed', writer.newId(), EVENT, body);
  };
  const at = now + 200_000;
  const may = async (n: number, payment: string): Promise<string> => {
    const undoing = await mayCancel(t.database, BUSINESS, deviceId(n), payment);
    return undoing.may ? 'may' : undoing.code;
  };

  it('that was asked for and never taken is undone by the device that asked, and by no other', async () => {
    const payment = idOf(40, 20);
    await noteAsked(
      t.database,
      BUSINESS,
      { payment, device: deviceId(2), amount: 5, currency: 'GBP' },
      at,
    );
    assert.deepEqual([await may(2, payment), await may(1, payment)], ['may', 'card/other-device']);
    // Nobody has heard of it: it may only be on its way, and is refused when it comes.
    assert.equal(await may(2, idOf(40, 21)), 'may');
  });

  it('that was taken is undone by an entry that stands, and by nothing else', async () => {
    const payment = idOf(40, 22);
    assert.deepEqual((await push(phone, pays(phone, payment), HELPER, at, at)).kept, []);
    assert.equal(await may(2, payment), 'card/not-decided');
    const forged = reversed(phone, payment, 99_999);
    assert.equal((await push(phone, [forged], HELPER, at + 1, at + 1)).kept.length, 1);
    assert.equal(await may(2, payment), 'card/not-decided', 'what is doubted undoes nothing');
    const accept = draft('looseEnd.settled', desk.newId(), null, {
      looseEnd: `entry:${forged.id}`,
      how: 'accepted',
      reason: 'seen',
    });
    await push(desk, [accept], OWNER, at + 2, at + 2);
    assert.equal(await may(2, payment), 'may', 'until an owner has accepted it');
    const other = idOf(40, 23);
    await push(phone, [...pays(phone, other), reversed(phone, other)], HELPER, at + 3, at + 3);
    assert.equal(await may(2, other), 'may');
  });

  it('that is held is taken or let go of as it was decided, by somebody who may', async () => {
    const payment = idOf(40, 24);
    await push(phone, pays(phone, payment, 'authorised'), HELPER, at + 4, at + 4);
    assert.equal(await decidedHold(t.database, BUSINESS, payment), null);
    const decide = (writer: DeviceWriter, amount: number): Draft =>
      draft('hold.decided', writer.newId(), EVENT, {
        payment,
        does: amount === 0 ? 'release' : 'capture',
        amount,
      });
    assert.equal((await push(phone, [decide(phone, 0)], HELPER, at + 5, at + 5)).kept.length, 1);
    assert.equal(await decidedHold(t.database, BUSINESS, payment), null, 'a helper may not');
    await push(desk, [decide(desk, 500)], OWNER, at + 6, at + 6);
    assert.deepEqual(await decidedHold(t.database, BUSINESS, payment), {
      does: 'capture',
      amount: 500,
    });
    assert.equal(await decidedHold(t.database, idOf(1, 2), payment), null, 'of another business');
  });

  it('that no acquirer knows counts, and is a loose end that names it', async () => {
    const [known, unknown, less] = [idOf(40, 30), idOf(40, 31), idOf(40, 32)];
    const answers: Record<string, AcquirerAnswer> = {};
    const said = (state: string, amount: number): AcquirerAnswer => ({
      came: 'answer',
      answer: {
        state: state as 'captured',
        amount,
        approval: '',
        acquirer: '',
        reason: '',
        expires: '',
      },
    });
    answers[`${BUSINESS}:${less}`] = said('captured', 1);
    const acquirer = {
      find: (reference: string) =>
        Promise.resolve(answers[reference] ?? { came: 'refusal', message: 'no such payment' }),
    } as unknown as Acquirer;
    const asked = { payment: known, device: deviceId(2), amount: 1018, currency: 'GBP' };
    await noteAsked(t.database, BUSINESS, asked, at);
    const captured = said('captured', 1018);
    assert.ok(captured.came === 'answer');
    await noteAnswer(t.database, BUSINESS, known, captured.answer);
    for (const payment of [known, unknown, less])
      assert.deepEqual(
        (await push(phone, pays(phone, payment), HELPER, at + 10, at + 10)).kept,
        [],
      );
    // Those of the tests before are not what is looked at here.
    await t.database.sequelize.query('DELETE FROM cards_to_check WHERE payment NOT IN (?)', {
      replacements: [[known, unknown, less]],
    });
    const silent = { find: () => Promise.resolve({ came: 'unknown' }) } as unknown as Acquirer;
    assert.equal(await checkCards(t.database, silent, at + 20), 2, 'nobody answers: asked again');
    assert.deepEqual(await Promise.all([known, unknown, less].map(stateOf)), [
      'applied',
      'applied',
      'applied',
    ]);
    assert.equal(await checkCards(t.database, acquirer, at + 100_000), 0);
    assert.deepEqual(await Promise.all([known, unknown, less].map(stateOf)), [
      'applied',
      'doubted',
      'doubted',
    ]);
    const found = (await keptOf()).filter(({ code }) => code === 'card/not-so');
    assert.deepEqual(
      found.map(({ entry }) => entry.id),
      [unknown, less],
    );
  });

  it('that was charged and that no device wrote down is shown', async () => {
    const payment = idOf(40, 40);
    const asked = { payment, device: deviceId(2), amount: 700, currency: 'GBP' };
    await noteAsked(t.database, BUSINESS, asked, at);
    const answer = {
      state: 'captured',
      amount: 700,
      approval: '',
      acquirer: '',
      reason: '',
      expires: '',
    } as const;
    await noteAnswer(t.database, BUSINESS, payment, answer);
    assert.deepEqual(await chargedUnwritten(t.database, BUSINESS, at), []);
    const later = await chargedUnwritten(t.database, BUSINESS, at + 2 * 3_600_000);
    assert.deepEqual(
      later.map((each) => [each.payment, each.device, each.amount]),
      [[payment, deviceId(2), 700]],
    );
    assert.deepEqual(await chargedUnwritten(t.database, idOf(1, 2), at + 2 * 3_600_000), []);
  });
});

describe('what is barred', () => {
  it('goes to no other device: persons, pictures, ways, what is asked for others', async () => {
    const at = now + 300_000;
    const body = { item: itemId(1), picture: 'data:image/webp;base64,AAAA' };
    const drafts = [
      draft('photo.set', phone.newId(), null, body),
      draft('event.set', phone.newId(), EVENT, eventBody('Forged')),
      draft('pin.set', phone.newId(), null, { person: OWNER, pin: null }),
      privateDraft(
        'receipt.asked',
        phone.newId(),
        { sale: idOf(41, 1), way: 'email', isGift: false, customer: null },
        'sixteen-letters-',
        { to: 'a@b.example' },
      ),
    ];
    const { position } = await pull(t.database, refOf(3), 1_000_000);
    const before = (await startAll(t.database, BUSINESS, now)).position;
    void position;
    const answer = await push(phone, drafts, HELPER, at, at);
    assert.deepEqual(
      answer.kept.map(({ state }) => state),
      ['barred', 'barred', 'barred', 'barred'],
    );
    assert.deepEqual((await pull(t.database, refOf(3), before)).entries, []);
  });
});

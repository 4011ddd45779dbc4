/** A customer who is erased: nothing personal is left in any table, whatever arrives when. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { keepCard } from '../../src/lib/core/customer/card-on-file';
import { eraseCustomer, noteConsent } from '../../src/lib/core/customer/set-customer';
import { chainFault, EMPTY_CHAIN, headAfter } from '../../src/lib/core/daybook/chain';
import { entrySchema } from '../../src/lib/core/daybook/entry';
import { askReceipt } from '../../src/lib/core/receipt/ask-receipt';
import { takePart } from '../../src/lib/core/sale/take-part';
import { emptySlip, putItem } from '../../src/lib/core/slip/open-slip';
import { AT_EVENT, CARD, PRICING } from '../../src/lib/core/testing/a-sale';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import {
  BUSINESS,
  CARD_WAY,
  customerDraft,
  customerId,
  deviceId,
  item,
} from '../../src/lib/core/testing/made-up-business';
import { putAside } from '../../src/lib/server/access/devices';
import { BookReader } from '../../src/lib/server/books/read-books';
import { append } from '../../src/lib/server/daybook/append';
import { pull } from '../../src/lib/server/daybook/pull';
import { rebuild } from '../../src/lib/server/daybook/rebuild';
import { placesIn } from '../support/places-in';
import { whomItHolds } from '../../src/lib/server/database/migrations/0018-whom-it-holds';
import { select } from '../../src/lib/server/database/select';
import { testDatabase, type TestDatabase } from '../support/test-database';

const now = Date.UTC(2026, 10, 22, 10);
const [phone, desk, lost] = [1, 2, 3].map((n) => ({ business: BUSINESS, device: deviceId(n) }));
let t: TestDatabase;
before(async () => {
  t = await testDatabase();
  for (const ref of [phone!, desk!, lost!]) await t.enrol(BUSINESS, ref.device);
});
after(() => t.end());

const placesOf = (word: string): Promise<string[]> => placesIn(t.database, word);

/** What is looked for: a name, a token, a signature, a telephone number. */
const PERSONAL = ['Sedgeley', '2029-05', '123,45,678,90', '+447700900987'];
const SURROUNDINGS = {
  pricing: PRICING,
  taxes: [],
  event: AT_EVENT,
  drawer: null,
  deviceNumber: 4,
  number: 1,
  now,
} as const;
const SIGNED_CARD = { ...CARD, entry: 'swipe', isSigned: true } as const;

describe('erasing a customer on the server', () => {
  const [first, second, third] = [new DeviceWriter(1), new DeviceWriter(2), new DeviceWriter(3)];

  it('takes the person out of every table, and the chains still verify', async () => {
    const known = [
      customerDraft(1, 'Wrenfield', first.newId),
      customerDraft(2, 'Alder', first.newId),
    ];
    const agreed = noteConsent(first.newId, customerId(1), true, 'written').drafts;
    await append(t.database, phone!, first.append([...known, ...agreed], now));
    await putAside(
      t.database,
      lost!,
      third.append([customerDraft(1, 'Wrenfield', third.newId)], now),
    );
    assert.deepEqual((await placesOf('Wrenfield')).sort(), [
      'access_unsent.entry',
      'books_customers.email',
      'books_customers.name',
      'daybook_entries.entry',
    ]);
    const erasure = eraseCustomer(second.newId, [customerId(1)]).drafts;
    await append(t.database, desk!, second.append(erasure, now + 1000));
    assert.deepEqual(await placesOf('Wrenfield'), []);
    assert.deepEqual(await placesOf('wrenfield@'), []);
    assert.notDeepEqual(await placesOf('Alder'), []);
    let head = EMPTY_CHAIN;
    for (const text of (await pull(t.database, desk!, 0)).entries) {
      const entry = entrySchema.parse(JSON.parse(text));
      assert.equal(chainFault(entry, head), null);
      head = headAfter(entry);
    }
    assert.equal(head.seq, 3);
  });

  it('takes signature, card on file and the address of a receipt with the person', async () => {
    const writer = new DeviceWriter(4);
    const { newId } = writer;
    const [customer, newSalt] = [customerId(3), () => 'sixteen-letters-'];
    const desk = { business: BUSINESS, device: deviceId(4) };
    await t.enrol(BUSINESS, desk.device);
    const put = putItem(emptySlip(newId()), item(1, 1500), 1000, 'a');
    assert.ok(put.ok);
    const paid = takePart({
      ...SURROUNDINGS,
      newId,
      slip: { ...put.slip, customer: { id: customer, name: 'Sedgeley', discount: '0' } },
      amount: 1000,
      way: CARD_WAY,
      card: SIGNED_CARD,
      payer: { signature: [[123, 45, 678, 90]], name: '', salt: newSalt() },
    });
    const card = { scheme: 'Visa', last4: '4471', expiry: '2029-05' };
    const kept = keepCard({ newId, newSalt, customer, card, consent: 'spoken' });
    const sale = newId();
    const asked = [
      { sale, to: 'sedgeley@green.example' },
      { sale, to: '07700 900987' },
    ].map((each) =>
      askReceipt({ newId, newSalt, customer, locale: 'en-GB', isGift: false, ...each }),
    );
    assert.ok(paid.ok && kept.ok);
    const drafts = [
      customerDraft(3, 'Sedgeley', newId),
      ...paid.drafts,
      ...kept.drafts,
      ...asked.flatMap((each) => (each.ok ? each.drafts : [])),
    ];
    assert.equal((await append(t.database, desk, writer.append(drafts, now))).refused, null);
    const places = async () =>
      (await Promise.all(PERSONAL.map(placesOf))).map((each) => each.sort());
    assert.deepEqual(await places(), [
      ['books_customers.email', 'books_customers.name', 'daybook_entries.entry'],
      ['books_customers.cardExpiry', 'daybook_entries.entry'],
      ['books_payers.strokes', 'daybook_entries.entry'],
      ['daybook_entries.entry'],
    ]);
    await append(t.database, desk, writer.append(eraseCustomer(newId, [customer]).drafts, now + 1));
    assert.deepEqual(await places(), [[], [], [], []]);
    const [payment] = await new BookReader(t.database).rows(BUSINESS, 'payments', {
      customer,
    });
    assert.equal(payment?.card?.isSigned, true);
  });

  it('keeps nothing personal of what a device that had not heard of it sends later', async () => {
    const late = first.append([customerDraft(1, 'Wrenfield', first.newId)], now + 2000);
    const answer = await append(t.database, phone!, late);
    assert.deepEqual([answer.refused, answer.have, answer.kept], [null, 4, []]);
    assert.deepEqual(await placesOf('Wrenfield'), []);
    // The same again, as a device sends that missed the answer.
    assert.equal((await append(t.database, phone!, late)).refused, null);
  });

  it('keeps nothing personal of what a device that was shut out hands over later', async () => {
    const handed = third.append([customerDraft(1, 'Wrenfield', third.newId)], now + 3000);
    assert.equal(await putAside(t.database, lost!, handed), true);
    assert.deepEqual(await placesOf('Wrenfield'), []);
  });

  it('finds whose data an entry holds by an index, and in entries of before there was one', async () => {
    const { sequelize } = t.database;
    const people = async (): Promise<unknown> =>
      await select(
        t.database,
        'SELECT position, person FROM daybook_entries WHERE person IS NOT NULL',
        [],
      );
    const known = await people();
    assert.notDeepEqual(known, []);
    await sequelize.query('UPDATE daybook_entries SET person = NULL');
    for (const statement of whomItHolds.statements) await sequelize.query(statement);
    assert.deepEqual(await people(), known);
    const [plan] = await select<{ key: string }>(
      t.database,
      'EXPLAIN SELECT position, entry FROM daybook_entries WHERE business = ? AND person = ?',
      [BUSINESS, customerId(2)],
    );
    assert.equal(plan?.key, 'by_person');
  });

  it('gives the same books when they are worked out again', async () => {
    const books = new BookReader(t.database);
    const before = await books.all(BUSINESS);
    assert.equal(before.customers?.length, 3);
    assert.equal(before.consents?.length, 1);
    await rebuild(t.database, BUSINESS);
    assert.deepEqual(await books.all(BUSINESS), before);
  });
});

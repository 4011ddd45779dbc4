/** Standing charges on the server: made when due and once, paid by the card on file, whatever dies in between. */
import assert from 'node:assert/strict';
import { after, before, beforeEach, describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { keepCard } from '../../src/lib/core/customer/card-on-file';
import { eraseCustomer } from '../../src/lib/core/customer/set-customer';
import { chargeAgain, haltCharge, setCharge } from '../../src/lib/core/charge/set-charge';
import type { Draft } from '../../src/lib/core/daybook/chain';
import type { Entry } from '../../src/lib/core/daybook/entry';
import { draft } from '../../src/lib/core/daybook/kinds';
import type { Row } from '../../src/lib/core/books/tables';
import { creditOwn } from '../../src/lib/core/invoice/make-invoice';
import { CASH_WAY } from '../../src/lib/core/payment/ways';
import { VAT } from '../../src/lib/core/testing/a-sale';
import { heldWay } from '../../src/lib/core/testing/held-drafts';
import { INVOICING } from '../../src/lib/core/testing/invoice-drafts';
import { BUSINESS, customerId, deviceId, idOf } from '../../src/lib/core/testing/made-up-business';
import { DeviceDatabase } from '../../src/lib/device/database';
import { NO_STANDING, receive } from '../../src/lib/device/receive';
import { bankNow } from '../../src/lib/server/books/bank-rows';
import { heldMovesOf } from '../../src/lib/server/books/held-moves';
import type { Acquirer, AcquirerAnswer, CardAsked } from '../../src/lib/server/cards/acquirer';
import { keepOnFile } from '../../src/lib/server/cards/cards-on-file';
import { makeCharges } from '../../src/lib/server/charges/make-charges';
import { takeCards } from '../../src/lib/server/charges/take-cards';
import { pull } from '../../src/lib/server/daybook/pull';
import { startPage } from '../../src/lib/server/daybook/start';
import { rebuild } from '../../src/lib/server/daybook/rebuild';
import { openDatabase } from '../../src/lib/server/database/database';
import { sendReceipts } from '../../src/lib/server/receipts/send-receipts';
import { HELPER, NOW, OWNER, Pushing } from '../support/pushing';
import { SentMail } from '../support/sent-mail';

const DAY = 86_400_000;
const TODAY = '2026-11-22';
const KEYED = {
  ...CASH_WAY,
  id: idOf(32, 7),
  setStamp: 'x',
  name: 'Card',
  method: 'keyed' as const,
};
const desk = new Pushing();
const { push, newId } = desk;
const salt = (): string => 'sixteen-characters';

/** Approves and remembers by reference, as acquirers do; what is said of the next can be set. */
class Practice implements Pick<Acquirer, 'authorise' | 'find' | 'keep'> {
  readonly asked: CardAsked[] = [];
  readonly known = new Map<string, AcquirerAnswer>();
  next: 'captured' | 'declined' | 'part' | 'silent' | 'lost' = 'captured';

  authorise(asked: CardAsked): Promise<AcquirerAnswer> {
    if (this.next === 'silent') return Promise.resolve({ came: 'unknown' });
    const known = this.known.get(asked.reference);
    if (known !== undefined) return Promise.resolve(known);
    this.asked.push(asked);
    const isTaken = this.next !== 'declined';
    const answer: AcquirerAnswer = {
      came: 'answer',
      answer: {
        state: isTaken ? 'captured' : 'declined',
        amount: isTaken ? (this.next === 'part' ? 1000 : asked.amount) : 0,
        ...{ approval: isTaken ? 'OK1' : '', acquirer: 'q-1', expires: '' },
        reason: isTaken ? '' : 'not enough money',
      },
    };
    this.known.set(asked.reference, answer);
    return Promise.resolve(this.next === 'lost' ? { came: 'unknown' } : answer);
  }

  find(reference: string): Promise<AcquirerAnswer> {
    return Promise.resolve(this.known.get(reference) ?? { came: 'refusal', message: 'unknown' });
  }

  keep(customer: string) {
    const card = {
      token: `t ${customer.slice(-8)}`,
      scheme: 'Visa',
      last4: '4242',
      expiry: '2029-04',
    };
    return Promise.resolve({ came: 'answer' as const, card });
  }
}
let practice = new Practice();
const acquirer = (): Acquirer => practice as unknown as Acquirer;

before(async () => {
  await desk.begin([
    draft('business.invoicing', newId(), null, INVOICING),
    ...[desk.way(KEYED), desk.way(heldWay('customer'))],
    ...Array.from({ length: 20 }, (_, n) => desk.customer(n + 1, { creditLimit: null, terms: 7 })),
  ]);
  await desk.ownerReadsMail();
});
after(() => desk.t.end());
beforeEach(() => (practice = new Practice()));

const charge = (
  n: number,
  more: { readonly isMailed?: boolean; readonly from?: string; readonly isByCard?: boolean } = {},
): readonly Draft[] => {
  const made = setCharge({
    ...{ newId, newSalt: salt, isHeaded: true, today: '2000-01-01', currency: 'GBP' },
    customer: { isErased: false, email: 'wren@green.example' },
    card: { scheme: 'Visa', last4: '4242', expiry: '2029-04' },
    ways: [KEYED],
    typed: {
      ...{
        customer: customerId(n),
        unit: 'month',
        every: '1',
        from: more.from ?? TODAY,
        until: '',
      },
      lines: [{ name: 'A box', quantity: '1', price: '25.00', taxes: [VAT.id] }],
      ...{ country: 'GB', note: 'as agreed', reference: '', isMailed: more.isMailed ?? false },
      way: more.isByCard === true ? KEYED.id : '',
      consent: more.isByCard === true ? 'written' : '',
    },
  });
  assert.ok(made.ok, JSON.stringify(made));
  return made.drafts;
};
const onFile = async (n: number): Promise<void> => {
  const kept = await keepOnFile(
    desk.t.database,
    acquirer(),
    BUSINESS,
    customerId(n),
    'sealed',
    NOW,
  );
  assert.ok(kept.came === 'answer');
  const made = keepCard({
    ...{ newId, newSalt: salt, customer: customerId(n), card: kept.card, consent: 'written' },
  });
  assert.ok(made.ok);
  assert.deepEqual(await push(made.drafts), []);
};
const make = (at = NOW): Promise<number> => makeCharges(desk.t.database, desk.books, at);
const take = (at = NOW): Promise<number> => takeCards(desk.t.database, desk.books, acquirer(), at);
const invoicesOf = async (drafts: readonly Draft[]): Promise<Row<'invoices'>[]> =>
  await desk.books.rows(BUSINESS, 'invoices', { source: drafts[0]!.id });
const owes = async (n: number): Promise<number> => {
  const account = `customer:${customerId(n)}`;
  return (await heldMovesOf(desk.books, BUSINESS, [account])).balances[0]!;
};
const triesOf = async (invoice: string): Promise<readonly string[]> =>
  (await desk.books.rows(BUSINESS, 'chargeCards', { invoice }))
    .toSorted((a, b) => (a.at < b.at ? -1 : 1))
    .map(({ is, why }) => (why === '' ? is : `${is}: ${why}`));

describe('a standing charge that is due', () => {
  it('is an invoice with its number, once, and again a month later', async () => {
    const set = charge(1);
    assert.deepEqual(await push(set), []);
    assert.equal(await make(), 1);
    assert.equal(await make(), 0);
    const [made, ...others] = await invoicesOf(set);
    assert.deepEqual(
      [made?.total, made?.issued, made?.due, made?.note, others.length],
      [2500, TODAY, '2026-11-29', 'as agreed', 0],
    );
    const [number] = await desk.books.rows(BUSINESS, 'invoiceNumbers', { id: made!.id });
    assert.match(number?.number ?? '', /^R2026-\d{4}$/);
    assert.equal(await owes(1), 2500);
    assert.equal(await make(NOW + 29 * DAY), 0);
    assert.equal(await make(NOW + 30 * DAY), 1);
    assert.equal(await owes(1), 5000);
  });

  it('is made by two processes at once, once', async () => {
    const sets = [2, 3, 4].map((n) => charge(n));
    for (const set of sets) assert.deepEqual(await push(set), []);
    const other = openDatabase({ databaseUrl: desk.t.url, databaseTimeout: 60_000 });
    try {
      const made = await Promise.all([make(), makeCharges(other, desk.books, NOW)]);
      assert.equal(made[0] + made[1], 3);
    } finally {
      await other.close();
    }
    for (const set of sets) assert.equal((await invoicesOf(set)).length, 1);
  });

  it('catches up with the days on which the server was off, a letter for each', async () => {
    const set = charge(5, { from: '2026-08-22', isMailed: true });
    assert.deepEqual(await push(set), []);
    // Whose mail it goes to is as they are known now.
    const [row] = await desk.books.rows(BUSINESS, 'customers', { id: customerId(5) });
    assert.deepEqual(
      await push([
        {
          ...desk.customer(5, { creditLimit: null, terms: 7 }),
          private: {
            salt: 'sixteen-letters-',
            data: {
              ...{ name: row!.name, email: 'five@green.example', phone: '', company: '' },
              ...{ address: '', taxNumber: '', note: '' },
            },
          },
        },
      ]),
      [],
    );
    assert.equal(await make(), 4);
    const made = await invoicesOf(set);
    assert.deepEqual(made.map(({ sourceNumber }) => sourceNumber).sort(), [
      ...['2026-08-22', '2026-09-22', '2026-10-22', TODAY],
    ]);
    const { sent, mailer } = new SentMail();
    await sendReceipts(desk.t.database, desk.books, { mailer, texts: null }, NOW);
    assert.equal(sent.length, 4);
    assert.ok(
      sent.every(({ to, subject }) => to === 'five@green.example' && /R2026-/.test(subject)),
    );
  });

  it('is made no more once it is halted, or its customer is forgotten', async () => {
    const [halted, forgotten] = [charge(6), charge(7)];
    for (const set of [halted, forgotten]) assert.deepEqual(await push(set), []);
    await make();
    const [known] = await desk.books.rows(BUSINESS, 'charges', { id: halted[0]!.id });
    const stop = haltCharge({ newId, newSalt: salt, today: TODAY, known: known! }, false);
    assert.deepEqual(await push([stop]), []);
    assert.deepEqual(await push(eraseCustomer(newId, [customerId(7)]).drafts), []);
    await make(NOW + 40 * DAY);
    for (const set of [halted, forgotten]) assert.equal((await invoicesOf(set)).length, 1);
    const [row] = await desk.books.rows(BUSINESS, 'charges', { id: forgotten[0]!.id });
    assert.deepEqual([row?.note, row?.reference], ['', '']);
  });

  it('that cannot be made holds up no other, and is looked at again', async () => {
    const [wrong, right] = [charge(8), charge(9)];
    for (const set of [wrong, right]) assert.deepEqual(await push(set), []);
    const { sequelize } = desk.t.database;
    const lines = (of: string): Promise<unknown> =>
      sequelize.query('UPDATE books_charges SET `lines` = ? WHERE id = ?', {
        replacements: [of, wrong[0]!.id],
      });
    const [row] = await desk.books.rows(BUSINESS, 'charges', { id: wrong[0]!.id });
    await lines('[]');
    assert.equal(await make(), 1);
    assert.equal((await invoicesOf(right)).length, 1);
    await lines(JSON.stringify(row!.lines));
    assert.equal(await make(NOW + 2 * 3_600_000), 1);
  });
});

describe('a standing charge and its card on file', () => {
  it('are paid at once, and the books say so: nothing is owed, the money is to come', async () => {
    await onFile(10);
    const set = charge(10, { isByCard: true });
    assert.deepEqual(await push(set), []);
    await make();
    assert.equal(await take(), 0);
    assert.equal(await take(), 0);
    assert.equal(practice.asked.length, 1);
    assert.deepEqual(
      [practice.asked[0]?.amount, practice.asked[0]?.token, practice.asked[0]?.capture],
      [2500, `t ${customerId(10).slice(-8)}`, true],
    );
    const [invoice] = await invoicesOf(set);
    assert.deepEqual(await triesOf(invoice!.id), ['paid']);
    assert.equal(await owes(10), 0);
    const [card] = await desk.books.rows(BUSINESS, 'cardPayments', { slip: invoice!.id });
    assert.deepEqual([card?.state, card?.resultAmount, card?.event], ['captured', 2500, null]);
  });

  it('come to the bank with a payout, of no event', async () => {
    const [invoice] = await desk.books.rows(BUSINESS, 'invoices', { customer: customerId(10) });
    const [tried] = await desk.books.rows(BUSINESS, 'chargeCards', { invoice: invoice!.id });
    const line = {
      ...{ id: 'l1', sort: 'payment' as const, reference: tried!.payment, amount: 2500, fee: 49 },
      ...{ last4: '4242', at: '2026-11-22T10:00:00Z', scheme: 'Visa' },
      ...{ payout: 'PO-7', payoutDay: '2026-11-23' },
    };
    const reported = draft('cards.reported', newId(), null, {
      ...{ source: 'practice', day: TODAY, lines: [line] },
    });
    assert.deepEqual(await push([reported]), []);
    const { money } = await bankNow(desk.t.database, desk.books, BUSINESS, '', NOW);
    const payout = money.find(({ is }) => is === 'payout');
    assert.deepEqual([payout?.amount, payout?.events], [2451, []]);
    const came = (amount: number): Draft =>
      draft('money.came', newId(), null, {
        ...{ day: '2026-11-23', amount: amount - 49, fees: 49, payments: [], what: 'PO-7' },
        from: [{ account: `owed:${KEYED.id}`, amount }],
      });
    assert.deepEqual(await push([came(2501)]), ['money/more']);
    assert.deepEqual(await push([came(2500)]), []);
    const after = await bankNow(desk.t.database, desk.books, BUSINESS, '', NOW);
    assert.equal(
      after.money.find(({ is }) => is === 'payout'),
      undefined,
    );
  });

  it('are asked again under the same reference, whoever dies in between', async () => {
    await onFile(11);
    const set = charge(11, { isByCard: true });
    assert.deepEqual(await push(set), []);
    await make();
    practice.next = 'silent';
    await take();
    assert.equal(await owes(11), 2500);
    practice.next = 'lost';
    await take(NOW + 2 * 60_000);
    assert.equal(await owes(11), 2500);
    // Meanwhile it is paid in full at the counter, as far as anybody can tell.
    practice.next = 'captured';
    await take(NOW + 3_600_000);
    assert.equal(practice.asked.length, 1, 'charged once');
    assert.equal(await owes(11), 0);
    const [invoice] = await invoicesOf(set);
    assert.deepEqual(await triesOf(invoice!.id), ['paid']);
  });

  it('say why where it does not pay, and are tried again when somebody says so, once', async () => {
    const set = charge(12, { isByCard: true });
    assert.deepEqual(await push(set), []);
    await make();
    await take();
    const [invoice] = await invoicesOf(set);
    assert.deepEqual(await triesOf(invoice!.id), ['failed: no card']);
    await onFile(12);
    practice.next = 'declined';
    const about = { invoice: invoice!.id, charge: set[0]!.id, customer: customerId(12) };
    const again = (): Promise<readonly string[]> => push([chargeAgain(newId, about)], OWNER, 1);
    assert.deepEqual(await again(), []);
    assert.deepEqual(await again(), ['charge/again'], 'a double tap');
    await take();
    assert.equal(practice.asked.length, 1);
    assert.equal(await owes(12), 2500);
    practice.next = 'part';
    assert.deepEqual(await again(), []);
    await take(NOW + 1000);
    assert.equal(await owes(12), 1500);
    assert.deepEqual((await triesOf(invoice!.id)).toSorted(), [
      ...['again', 'again', 'failed: declined', 'failed: declined', 'failed: no card', 'paid'],
    ]);
    practice.next = 'captured';
    assert.deepEqual(await again(), []);
    await take(NOW + 2000);
    assert.equal(await owes(12), 0);
    assert.equal(practice.asked.at(-1)?.amount, 1500);
  });

  it('are not asked once the charge was halted, until somebody says so', async () => {
    await onFile(14);
    const set = charge(14, { isByCard: true });
    assert.deepEqual(await push(set), []);
    await make();
    practice.next = 'silent';
    await take();
    practice.next = 'captured';
    const second = charge(14, { isByCard: true });
    assert.deepEqual(await push(second), []);
    await make();
    const [known] = await desk.books.rows(BUSINESS, 'charges', { id: second[0]!.id });
    const stop = haltCharge({ newId, newSalt: salt, today: TODAY, known: known! }, false);
    assert.deepEqual(await push([stop]), []);
    await take();
    const [invoice] = await invoicesOf(second);
    assert.deepEqual(await triesOf(invoice!.id), ['failed: halted']);
    assert.equal(practice.asked.length, 0);
    const about = { invoice: invoice!.id, charge: second[0]!.id, customer: customerId(14) };
    assert.deepEqual(await push([chargeAgain(newId, about)]), []);
    await take();
    assert.equal(practice.asked.length, 1);
    // What was asked for before, and never heard of, is asked again all the same.
    await take(NOW + 3_600_000);
    assert.equal(await owes(14), 0);
  });

  it('ask for nothing that was credited or paid before', async () => {
    await onFile(13);
    const set = charge(13, { isByCard: true });
    assert.deepEqual(await push(set), []);
    await make();
    const [invoice] = await invoicesOf(set);
    const credit = creditOwn({
      ...{ newId, invoice: invoice!, credits: [], today: TODAY, reason: 'not this month' },
      ...{ off: new Map([[0, 1000]]), deposit: null },
    });
    assert.ok(credit.ok);
    assert.deepEqual(await push(credit.drafts), []);
    await take();
    assert.equal(practice.asked.length, 0);
    assert.deepEqual(await triesOf(invoice!.id), []);
    assert.equal(await owes(13), 0);
  });
});

describe('what a device says of standing charges', () => {
  it('needs the right to it, a customer, a way that takes cards and a tax that there are, and no day long past', async () => {
    const [set] = charge(14);
    const changed = (body: object): readonly Draft[] => [
      { ...set!, id: newId(), body: { ...set!.body, id: newId(), ...body } },
    ];
    assert.deepEqual(await push([set!], HELPER), ['right/missing']);
    assert.deepEqual(await push(changed({ customer: idOf(99, 1) })), ['charge/customer']);
    assert.deepEqual(await push(changed({ way: heldWay('customer').id, consent: 'written' })), [
      'charge/way',
    ]);
    const lines = [{ name: 'x', quantity: 1000, price: 1, taxes: [idOf(99, 2)] }];
    assert.deepEqual(await push(changed({ lines })), ['charge/tax']);
    const long = { from: '2020-01-01', notBefore: '2020-01-01', unit: 'week' };
    assert.deepEqual(await push(changed(long)), ['charge/past']);
    assert.deepEqual(await push(charge(14)), []);
  });

  it('does not make one somebody else’s, nor an invoice of it, nor say that a card paid', async () => {
    const set = charge(15);
    assert.deepEqual(await push(set), []);
    const stolen = { ...set[0]!, id: newId(), body: { ...set[0]!.body, customer: customerId(16) } };
    assert.deepEqual(await push([stolen]), ['charge/customer']);
    await make();
    const [invoice] = await invoicesOf(set);
    const [entry] = await entriesOf(invoice!.id);
    const again = { ...entry!, id: newId() };
    const { id, kind, v, event, body } = again;
    assert.deepEqual(await push([{ id, kind, v, event, body }]), ['server/only']);
    const about = { invoice: invoice!.id, charge: set[0]!.id, customer: customerId(15) };
    const paid = draft('charge.paid', newId(), null, {
      ...{ ...about, payment: newId(), way: KEYED.id, amount: 2500, scheme: 'Visa' },
      ...{ last4: '4242', approval: '1', acquirer: '1' },
    });
    assert.deepEqual(await push([paid]), ['server/only']);
    assert.equal(await owes(15), 2500);
    assert.deepEqual(await push([chargeAgain(newId, about)]), ['charge/again']);
    const strange = { ...about, invoice: newId() };
    assert.deepEqual(await push([chargeAgain(newId, strange)]), ['charge/unknown']);
  });
});

async function entriesOf(id: string): Promise<readonly Entry[]> {
  const { entries } = await pull(desk.t.database, { business: BUSINESS, device: deviceId(2) }, 0);
  return entries.map((text) => JSON.parse(text) as Entry).filter((entry) => entry.id === id);
}

describe('books that are worked out again', () => {
  it('have the same charges', async () => {
    const all = async () => ({
      charges: await desk.books.rows(BUSINESS, 'charges'),
      cards: await desk.books.rows(BUSINESS, 'chargeCards'),
      sums: await desk.books.rows(BUSINESS, 'heldSums'),
    });
    const before = await all();
    await rebuild(desk.t.database, BUSINESS);
    assert.deepEqual(await all(), before);
  });
});

describe('a device that is enrolled later', () => {
  it('knows how far the server’s own daybook is, and goes on from there', async () => {
    assert.deepEqual(await push(charge(18)), []);
    assert.equal(await make(), 1);
    const { begins } = await startPage(desk.t.database, BUSINESS, null, NOW);
    const db = new DeviceDatabase('later', { indexedDB: new IDBFactory(), IDBKeyRange });
    const { position, received, clock } = begins!;
    await db.write('standing', { ...NO_STANDING, position, received, clock });
    const set = charge(19);
    assert.deepEqual(await push(set), []);
    assert.equal(await make(), 1);
    // Rows that it was given page by page may be newer than where it begins, and its sums are not.
    const [row] = await invoicesOf(set);
    await db.books.invoices.put(row!);
    const later = { business: BUSINESS, device: deviceId(9) };
    const { entries, position: upTo } = await pull(desk.t.database, later, position);
    const read = entries.map((text) => JSON.parse(text) as Entry);
    // A number that is missing would be refused.
    assert.equal(await receive(db, deviceId(9), { entries: read, position: upTo }), read.length);
    assert.equal(await db.books.invoices.where('source').equals(set[0]!.id).count(), 1);
    assert.equal((await db.books.heldSums.get(`customer:${customerId(19)}`))?.amount, 2500);
    db.close();
  });
});

describe('a server that was set back to the day before a charge was made', () => {
  it('makes it again, and a device that knew it has it once', async () => {
    const [db, name] = [
      new DeviceDatabase('knows', { indexedDB: new IDBFactory(), IDBKeyRange }),
      deviceId(9),
    ];
    await db.write('standing', NO_STANDING);
    const hear = async (): Promise<void> => {
      const { entries, position } = await pull(
        desk.t.database,
        { business: BUSINESS, device: name },
        0,
      );
      const read = entries.map((text) => JSON.parse(text) as Entry);
      await receive(db, name, { entries: read, position }, false);
    };
    await onFile(17);
    const set = charge(17, { isByCard: true });
    assert.deepEqual(await push(set), []);
    const [{ position } = { position: '0' }] = (
      await desk.t.database.sequelize.query('SELECT position FROM daybook_counters')
    )[0] as { position: string }[];
    await make();
    await take();
    await hear();
    const account = `customer:${customerId(17)}`;
    assert.equal((await db.books.heldSums.get(account))?.amount, 0);
    const [made] = await invoicesOf(set);

    // As a backup of that moment leaves it, and a server that is started again.
    const { sequelize } = desk.t.database;
    await sequelize.query('DELETE FROM daybook_entries WHERE position > ?', {
      replacements: [position],
    });
    await sequelize.query('UPDATE daybook_counters SET position = ?', { replacements: [position] });
    await sequelize.query('DELETE FROM invoice_numbers WHERE invoice = ?', {
      replacements: [made!.id],
    });
    await sequelize.query('DELETE FROM charge_cards_due');
    await sequelize.query('DELETE FROM cards_asked');
    await rebuild(desk.t.database, BUSINESS);
    await sequelize.query(
      'INSERT INTO charges_due (business, charge, dueAt) VALUES (?, ?, 0) ON DUPLICATE KEY UPDATE dueAt = 0',
      { replacements: [BUSINESS, set[0]!.id] },
    );
    const started = openDatabase({ databaseUrl: desk.t.url, databaseTimeout: 60_000 });
    try {
      await makeCharges(started, desk.books, NOW + 1000);
      await takeCards(started, desk.books, acquirer(), NOW + 1000);
    } finally {
      await started.close();
    }
    assert.equal(practice.asked.length, 1, 'the acquirer knew the reference');
    const [again] = await invoicesOf(set);
    assert.equal(again?.id, made?.id);
    assert.equal(await owes(17), 0);
    await hear();
    assert.equal((await db.books.heldSums.get(account))?.amount, 0);
    assert.equal(await db.books.invoices.where('source').equals(set[0]!.id).count(), 1);
    assert.equal((await db.books.invoiceNumbers.get(made!.id))?.number.startsWith('R2026-'), true);
    db.close();
  });
});

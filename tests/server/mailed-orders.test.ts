/** An order that is mailed to its supplier by the server: by right, once, with its PDF, to the address in the books. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { BASE, SUPPLIERS } from '../../src/lib/core/books/names';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { draft, type BodyOf } from '../../src/lib/core/daybook/kinds';
import { idOf, itemId, SUPPLIER } from '../../src/lib/core/testing/made-up-business';
import { lettersGivenUp } from '../../src/lib/server/receipts/given-up';
import { sendReceipts } from '../../src/lib/server/receipts/send-receipts';
import { BUSINESS } from '../../src/lib/core/testing/made-up-business';
import { HELPER, NOW, Pushing } from '../support/pushing';
import { SentMail } from '../support/sent-mail';

const desk = new Pushing();
const { push } = desk;
const newId = (): string => desk.newId();
const ORDER = idOf(50, 7);
const TRANSFER = idOf(50, 8);
const MINUTE = 61_000;

const supplier = (email: string): Draft =>
  draft('supplier.set', newId(), null, {
    ...{ id: SUPPLIER, name: 'Rootwell', email, phone: '', days: 3, note: '', isActive: true },
  });
const list = (id: string, use: 'order' | 'transfer', number: number): Draft =>
  draft('list.set', newId(), null, {
    ...{ list: id, use, deviceNumber: 1, number, name: 'Order', van: null, note: 'ring first' },
    ...{ from: use === 'order' ? SUPPLIERS : BASE, to: use === 'order' ? BASE : idOf(53, 1) },
    ...{ supplier: use === 'order' ? SUPPLIER : null, day: '2026-11-30' },
  });
const line = (id: string, wanted: number): Draft =>
  draft('list.line', newId(), null, {
    ...{ list: id, item: itemId(1), wanted, price: 180_000, note: '' },
  });
const approved = (id: string): Draft =>
  draft('list.stage', newId(), null, { list: id, to: 'approved', why: '' });
/** @param before How often it had been asked for. */
const mailed = (id: string, before = 0): Draft =>
  draft('list.mailed', newId(), null, { list: id, before });

const mail = new SentMail();
const { sent, mailer } = mail;
const send = async (minutes: number): Promise<number> =>
  await sendReceipts(desk.t.database, desk.books, { mailer, texts: null }, NOW + minutes * MINUTE);

before(async () => {
  await desk.begin([supplier('')]);
  await desk.ownerReadsMail();
  const home: BodyOf<'place.set'> = {
    ...{ id: idOf(53, 1), name: 'Barn', sort: 'store', within: null, code: '', position: 0 },
    ...{ mostWeight: null, mostCrates: null, isActive: true },
  };
  assert.deepEqual(await push([draft('place.set', newId(), null, home)]), []);
});
after(() => desk.t.end());

describe('an order that is mailed to its supplier', () => {
  it('is one that somebody approved, and is asked for by right', async () => {
    assert.deepEqual(await push([mailed(ORDER)]), ['list/unknown']);
    assert.deepEqual(await push([list(ORDER, 'order', 7), line(ORDER, 24_000)]), []);
    assert.deepEqual(await push([mailed(ORDER)]), ['list/draft-mailed']);
    assert.deepEqual(await push([approved(ORDER)]), []);
    assert.deepEqual(await push([mailed(ORDER)], HELPER), ['right/missing']);
    assert.deepEqual(
      await push([list(TRANSFER, 'transfer', 8), line(TRANSFER, 1000), approved(TRANSFER)]),
      [],
    );
    assert.deepEqual(await push([mailed(TRANSFER)]), ['list/no-order']);
    assert.equal(await send(0), 0);
    assert.deepEqual(sent, []);
  });

  it('waits for an address and for whoever takes mail, and is sent once, as it stands then', async () => {
    assert.deepEqual(await push([mailed(ORDER)]), []);
    assert.equal(await send(1), 1);
    assert.deepEqual(await push([supplier('sales@rootwell.example'), line(ORDER, 36_000)]), []);
    mail.isDown = true;
    assert.equal(await send(2), 1);
    mail.isDown = false;
    // Twice as long as the first time.
    assert.equal(await send(3), 1);
    assert.equal(await send(4), 0);
    assert.equal(await send(5), 0);
    assert.equal(sent.length, 1);
    const [letter] = sent;
    assert.equal(letter!.to, 'sales@rootwell.example');
    assert.match(letter!.subject, /^Order .*7 from /);
    assert.match(letter!.text, /^We would like to order, by Monday 30 November:\n\n36 × /);
    assert.match(letter!.text, /ring first/);
    const [pdf] = letter!.attachments!;
    assert.match(pdf!.filename, /7\.pdf$/);
    assert.equal((pdf!.content as Buffer).subarray(0, 5).toString(), '%PDF-');
    // Its thread says so on every device.
    const acts = await desk.books.rows(BUSINESS, 'listActs', { list: ORDER });
    assert.equal(acts.filter(({ does }) => does === 'mailed').length, 1);
  });

  it('is not sent once it was called off', async () => {
    const OFF = idOf(50, 9);
    const off = draft('list.stage', newId(), null, { list: OFF, to: 'off', why: 'too dear' });
    const all = [list(OFF, 'order', 9), line(OFF, 1000), approved(OFF), mailed(OFF), off];
    assert.deepEqual(await push(all), []);
    assert.equal(await send(6), 0);
    assert.equal(sent.length, 1);
  });

  it('goes out once, though two ask for it who have not heard of each other', async () => {
    assert.deepEqual(await push([mailed(ORDER), mailed(ORDER)]), []);
    assert.equal(await send(6), 0);
    assert.equal(sent.length, 1);
  });

  it('goes out for each who asks as the application did before it said how often', async () => {
    const asked = mailed(ORDER);
    const { before: _before, ...body } = asked.body;
    assert.deepEqual(await push([{ ...asked, v: 1, body }]), []);
    assert.equal(await send(6), 0);
    assert.equal(sent.length, 2);
  });

  it('can be sent again, and never to more than a day holds', async () => {
    for (let n = 0; n < 12; n += 1) assert.deepEqual(await push([mailed(ORDER, n + 1)]), []);
    for (let minute = 7; minute < 17; minute += 1) await send(minute);
    assert.equal(sent.length, 10);
  });

  it('that nobody takes for days is a loose end, until somebody settles it', async () => {
    // What was too much for one day goes out on the next.
    await send(2000);
    assert.equal(await send(4000), 0);
    const LOST = idOf(50, 10);
    const asked = mailed(LOST);
    const all = [list(LOST, 'order', 10), line(LOST, 1000), approved(LOST), asked];
    assert.deepEqual(await push(all), []);
    mail.isDown = true;
    let [minute, waiting] = [10_000, 1];
    const letters = async () => await lettersGivenUp(desk.t.database, BUSINESS);
    for (let tries = 0; waiting > 0; tries += 1, minute += 61) {
      assert.ok(tries <= 100, 'it is given up in the end');
      if (tries < 100) assert.deepEqual(await letters(), []);
      waiting = await send(minute);
    }
    const [lost, ...more] = await letters();
    assert.deepEqual(more, []);
    assert.deepEqual(
      [lost?.looseEnd, lost?.way, lost?.about],
      [`letter:${asked.id}`, 'order', LOST],
    );
    const settled = {
      looseEnd: `letter:${asked.id}`,
      how: 'accepted',
      reason: 'rang them',
    } as const;
    assert.deepEqual(await push([draft('looseEnd.settled', newId(), null, settled)]), []);
    assert.deepEqual(await letters(), []);
  });
});

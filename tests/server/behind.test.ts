/** What the server does behind its answers: receipts sent once, cards off file told to the acquirer. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { keepCard, takeCardOff } from '../../src/lib/core/customer/card-on-file';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { draft } from '../../src/lib/core/daybook/kinds';
import { foundedDrafts } from '../../src/lib/core/testing/founded';
import { askReceipt } from '../../src/lib/core/receipt/ask-receipt';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import {
  BUSINESS,
  customerDraft,
  customerId,
  deviceId,
  idOf,
  personId,
} from '../../src/lib/core/testing/made-up-business';
import { BookReader } from '../../src/lib/server/books/read-books';
import type { Acquirer } from '../../src/lib/server/cards/acquirer';
import { forgetCards, keepOnFile, tokenOf } from '../../src/lib/server/cards/cards-on-file';
import { Accounts } from '../../src/lib/server/access/accounts';
import { select } from '../../src/lib/server/database/select';
import { append } from '../../src/lib/server/daybook/append';
import type { Mailer } from '../../src/lib/server/mail/mailer';
import { MOST_A_DAY, sendReceipts } from '../../src/lib/server/receipts/send-receipts';
import { httpTexts } from '../../src/lib/server/texts/text-sender';
import { startTexts } from '../../standins/texts/texts.mjs';
import { freePort } from '../../scripts/setup/ports.mjs';
import { testDatabase, type TestDatabase } from '../support/test-database';

const now = Date.UTC(2026, 10, 22, 10);
const MINUTE = 61_000;
const OWNER = personId(1);
const phone = { business: BUSINESS, device: deviceId(1) };
const writer = new DeviceWriter(1);
const { newId } = writer;
const newSalt = (): string => 'sixteen-letters-';
let t: TestDatabase;
let texts: Awaited<ReturnType<typeof startTexts>>;
before(async () => {
  t = await testDatabase();
  texts = await startTexts({ port: await freePort(), apiKey: 'practice' });
  await t.enrol(BUSINESS, phone.device);
});
after(async () => {
  await texts.stop();
  await t.end();
});
const write = async (drafts: readonly Draft[], by: string | null = OWNER): Promise<void> => {
  const result = await append(t.database, phone, writer.append(drafts, now, by));
  assert.deepEqual([result.refused, result.kept], [null, []]);
};

describe('receipts that are asked for', () => {
  const sent: string[] = [];
  let isMailDown = true;
  const mailer: Mailer = {
    send: ({ to }) => {
      if (isMailDown) return Promise.reject(new Error('nobody there'));
      sent.push(to);
      return Promise.resolve();
    },
    close: () => undefined,
  };
  const round = async (at: number, withMail = true): Promise<number> =>
    await sendReceipts(
      t.database,
      new BookReader(t.database),
      { mailer: withMail ? mailer : null, texts: httpTexts(texts.url, texts.apiKey) },
      at,
    );

  it('wait until somebody takes them, and are sent once', async () => {
    const [owner, ...rest] = foundedDrafts(writer);
    await write([owner!], null);
    await write(rest);
    const rung = writer.sale([[1, 2]], 0, now);
    await write(rung);
    const sale = rung.find(({ kind }) => kind === 'sale.rung')!.id;
    for (const to of ['07700 900123', 'wren@green.example']) {
      const asked = askReceipt({
        newId,
        newSalt,
        sale,
        customer: null,
        to,
        locale: 'en-GB',
        isGift: false,
      });
      assert.ok(asked.ok);
      await write(asked.drafts);
    }
    // Nobody has confirmed the owner's address: nothing is sent, and nothing is lost.
    assert.equal(await round(now), 0);
    const accounts = new Accounts(t.database, t.enrolment);
    await accounts.addOwner(BUSINESS, 'wren@green.example', 'three quiet herons', now);
    await fetch(`${texts.url}/faults`, { method: 'POST', body: JSON.stringify({ refuse: 1 }) });
    assert.equal(await round(now), 2);
    assert.deepEqual([sent, texts.messages.length], [[], 0]);
    // Not at once again: whoever has it in hand may still be sending it.
    assert.equal(await round(now + 1000), 2);
    isMailDown = false;
    assert.equal(await round(now + MINUTE), 0);
    assert.equal(await round(now + 2 * MINUTE), 0);
    assert.deepEqual(sent, ['wren@green.example']);
    assert.equal(texts.messages.length, 1);
    const [message] = texts.messages;
    assert.equal(message?.to, '+447700900123');
    assert.match(message?.text ?? '', /^Green: sale D1-1, .*£2\.10, Cash\. Code [0-9a-f]{10}$/);
  });

  it('are told by their id when a message comes twice', async () => {
    const [message] = texts.messages;
    await httpTexts(texts.url, texts.apiKey).send(message!);
    assert.equal(texts.messages.length, 1);
  });

  const ask = (sale: string, to: string): readonly Draft[] => {
    const said = { customer: null, locale: 'en-GB', isGift: false } as const;
    const asked = askReceipt({ newId, newSalt, sale, to, ...said });
    assert.ok(asked.ok);
    return asked.drafts;
  };
  const soldOne = async (): Promise<string> => {
    const rung = writer.sale([[1, 1]], 0, now);
    await write(rung);
    return rung.find(({ kind }) => kind === 'sale.rung')!.id;
  };

  it('that this server does not send are left for one that does', async () => {
    await write(ask(await soldOne(), 'late@green.example'));
    assert.equal(await round(now + 3 * MINUTE, false), 0);
    assert.equal(await round(now + 3 * MINUTE), 0);
    assert.equal(sent.at(-1), 'late@green.example');
  });

  it('of a sale that there is not are dropped, and shown', async () => {
    const asked = writer.append(ask(newId(), 'nobody@green.example'), now, OWNER);
    const { kept } = await append(t.database, phone, asked);
    assert.deepEqual(
      kept.map(({ state, code }) => [state, code]),
      [['barred', 'receipt/unknown-sale']],
    );
    const before = sent.length;
    assert.equal(await round(now + 4 * MINUTE), 0);
    assert.equal(sent.length, before);
  });

  it('are not more than a day holds, to one address and of one business', async () => {
    const sale = await soldOne();
    const before = sent.length;
    for (let n = 0; n < MOST_A_DAY.address + 2; n += 1) await write(ask(sale, 'one@green.example'));
    for (let n = 1; n < 8; n += 1) await round(now + 5 * MINUTE + n);
    assert.equal(sent.length - before, MOST_A_DAY.address);
    // What was too much waits for the next day.
    assert.equal(await round(now + 86_400_000), 0);
    assert.equal(sent.length - before, MOST_A_DAY.address + 2);
    await t.database.sequelize.query('UPDATE receipts_counted SET sent = ?', {
      replacements: [MOST_A_DAY.business],
    });
    await write(ask(sale, 'two@green.example'));
    const later = sent.length;
    assert.equal(await round(now + 86_400_000 + MINUTE), 1);
    assert.equal(sent.length, later);
    assert.equal(await round(now + 2 * 86_400_000), 0);
    assert.equal(sent.at(-1), 'two@green.example');
  });

  it('are not lost when nobody takes mail for a day: they are tried less and less often', async () => {
    const [from, hour] = [now + 2.5 * 86_400_000, 3_600_000];
    await write(ask(await soldOne(), 'three@green.example'));
    isMailDown = true;
    for (let minute = 0; minute < 24 * 60; minute += 10)
      assert.equal(await round(from + minute * 60_000), 1);
    const [row] = await select<{ tries: number }>(
      t.database,
      "SELECT tries FROM receipts_sent WHERE business = ? AND state = 'due'",
      [BUSINESS],
    );
    assert.ok(row!.tries > 20 && row!.tries < 40, `tried ${String(row!.tries)} times`);
    isMailDown = false;
    assert.equal(await round(from + 25 * hour), 0);
    assert.equal(sent.at(-1), 'three@green.example');
  });

  it('of one business do not hold up those of another, however many there are', async () => {
    const [other, theirs] = [idOf(1, 2), idOf(20, 7)];
    const due = async (business: string, id: string, arrived: number) => {
      await t.database.sequelize.query(
        "INSERT INTO receipts_sent (business, id, state, tries, triedAt, way, arrived) VALUES (?, ?, 'due', 0, 0, 'email', ?)",
        { replacements: [business, id, arrived] },
      );
      await t.database.sequelize.query(
        'INSERT INTO books_receipt_asks (business, id, sale, way) VALUES (?, ?, ?, ?)',
        { replacements: [business, id, 'none', 'email'] },
      );
      await t.database.sequelize.query(
        'INSERT INTO daybook_entries (business, position, id, device, seq, kind, stamp, hash, state, fault, entry) ' +
          "VALUES (?, ?, ?, ?, ?, 'receipt.asked', '', '', 'applied', '', '{}')",
        { replacements: [business, 90_000 + arrived, id, phone.device, 90_000 + arrived] },
      );
    };
    for (let n = 0; n < 60; n += 1) await due(BUSINESS, idOf(20, 100 + n), n);
    await new Accounts(t.database, t.enrolment).addOwner(
      other,
      'o@o.example',
      'three quiet herons',
      now,
    );
    await due(other, theirs, 999);
    await round(now + 3 * 86_400_000);
    const [row] = await select<{ state: string }>(
      t.database,
      'SELECT state FROM receipts_sent WHERE business = ? AND id = ?',
      [other, theirs],
    );
    assert.equal(row?.state, 'sent');
    await t.database.sequelize.query('DELETE FROM daybook_entries WHERE position >= 90000');
    await t.database.sequelize.query('DELETE FROM receipts_sent WHERE arrived < 1000');
  });
});

describe('a card that is taken off file', () => {
  it('is told to the acquirer once, as soon as that answers', async () => {
    const customer = customerId(1);
    const told: string[] = [];
    let isDown = true;
    let tokens = 0;
    const acquirer = {
      keep: () => {
        const token = `tok-${String((tokens += 1))}`;
        const card = { token, scheme: 'Visa', last4: '4471', expiry: '2029-04' };
        return Promise.resolve({ came: 'answer', card });
      },
      forget: (who: string) => {
        if (isDown) return Promise.reject(new Error('nobody there'));
        told.push(who);
        return Promise.resolve();
      },
    } as unknown as Acquirer;
    const put = async (at: number): Promise<readonly Draft[]> => {
      const said = await keepOnFile(t.database, acquirer, BUSINESS, customer, 'sealed', at);
      assert.ok(said.came === 'answer');
      assert.ok(!JSON.stringify(said).includes('tok-'), 'the token stays with the server');
      const kept = keepCard({ newId, newSalt, customer, card: said.card, consent: 'spoken' });
      assert.ok(kept.ok);
      return kept.drafts;
    };
    await write([customerDraft(1, 'Wren', newId)]);
    const drafts = await put(now);
    assert.equal(await tokenOf(t.database, BUSINESS, customer), null, 'nobody has agreed yet');
    await write(drafts);
    assert.equal(await tokenOf(t.database, BUSINESS, customer), 'tok-1');
    assert.equal(await tokenOf(t.database, idOf(1, 2), customer), null, 'of another business');
    assert.equal(await forgetCards(t.database, acquirer, now + 2 * 86_400_000), 0);
    await write(takeCardOff(newId, customer).drafts);
    assert.equal(await tokenOf(t.database, BUSINESS, customer), null);
    const later = now + 2 * 86_400_000;
    await assert.rejects(forgetCards(t.database, acquirer, later));
    isDown = false;
    assert.equal(await forgetCards(t.database, acquirer, later), 0);
    await forgetCards(t.database, acquirer, later);
    assert.deepEqual(told, [`${BUSINESS}:${customer}`]);
    // One that no entry ever speaks of: whoever put it on file died with it.
    await put(later);
    assert.equal(await forgetCards(t.database, acquirer, later + 1000), 1, 'it is given time');
    assert.equal(told.length, 1);
    await forgetCards(t.database, acquirer, later + 2 * 86_400_000);
    assert.equal(told.length, 2);
    // Another one was put on file and forgotten with its customer.
    await write(await put(later));
    await write([draft('customer.erased', newId(), null, { customer })]);
    await forgetCards(t.database, acquirer, later);
    assert.equal(told.length, 3);
  });
});

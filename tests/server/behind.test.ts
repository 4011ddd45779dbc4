/** What the server does behind its answers: receipts sent once, cards off file told to the acquirer. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { keepCard, takeCardOff } from '../../src/lib/core/customer/card-on-file';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { draft } from '../../src/lib/core/daybook/kinds';
import { COUNTRIES } from '../../src/lib/core/founding/countries';
import { foundBusiness } from '../../src/lib/core/founding/found-business';
import { askReceipt } from '../../src/lib/core/receipt/ask-receipt';
import {
  BUSINESS,
  customerDraft,
  customerId,
  deviceId,
  DeviceWriter,
  personId,
} from '../../src/lib/core/testing/arbitrary-daybook';
import { BookReader } from '../../src/lib/server/books/read-books';
import type { Acquirer } from '../../src/lib/server/cards/acquirer';
import { forgetCards } from '../../src/lib/server/cards/forget-cards';
import { append } from '../../src/lib/server/daybook/append';
import type { Mailer } from '../../src/lib/server/mail/mailer';
import { sendReceipts } from '../../src/lib/server/receipts/send-receipts';
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
    const [country] = COUNTRIES.filter(({ code }) => code === 'GB');
    const found = { name: 'Fernbank', owner: { id: OWNER, name: 'Wren' }, country: country! };
    const { currency, timeZone } = country!;
    // The owner is the first who is there; taxes are no matter here.
    await write(foundBusiness({ newId, ...found, currency, timeZone }).slice(0, 2), null);
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
    assert.match(message?.text ?? '', /^Fernbank: sale D1-1, .*£2\.10, Cash\. Code [0-9a-f]{10}$/);
  });

  it('are told by their id when a message comes twice', async () => {
    const [message] = texts.messages;
    await httpTexts(texts.url, texts.apiKey).send(message!);
    assert.equal(texts.messages.length, 1);
  });

  it('that this server does not send are left for one that does', async () => {
    const asked = askReceipt({
      newId,
      newSalt,
      sale: newId(),
      customer: null,
      to: 'late@green.example',
      locale: 'en-GB',
      isGift: false,
    });
    assert.ok(asked.ok);
    await write(asked.drafts);
    assert.equal(await round(now + 3 * MINUTE, false), 0);
    // Its sale has not come yet, so it is left.
    assert.equal(await round(now + 3 * MINUTE), 1);
  });
});

describe('a card that is taken off file', () => {
  it('is told to the acquirer once, as soon as that answers', async () => {
    const customer = customerId(1);
    const card = { token: 'tok-1', scheme: 'Visa', last4: '4471', expiry: '2029-04' };
    const kept = keepCard({ newId, newSalt, customer, card, consent: 'spoken' });
    assert.ok(kept.ok);
    const told: string[] = [];
    let isDown = true;
    const acquirer = {
      forget: (who: string) => {
        if (isDown) return Promise.reject(new Error('nobody there'));
        told.push(who);
        return Promise.resolve();
      },
    } as Acquirer;
    await write([customerDraft(1, 'Wren', newId), ...kept.drafts]);
    assert.equal(await forgetCards(t.database, acquirer), 0);
    await write(takeCardOff(newId, customer).drafts);
    await assert.rejects(forgetCards(t.database, acquirer));
    isDown = false;
    assert.equal(await forgetCards(t.database, acquirer), 0);
    await forgetCards(t.database, acquirer);
    assert.deepEqual(told, [`${BUSINESS}:${customer}`]);
    // Another one was put on file and forgotten with its customer.
    await write(kept.drafts.map((each) => ({ ...each, id: newId() })));
    await write([draft('customer.erased', newId(), null, { customer })]);
    await forgetCards(t.database, acquirer);
    assert.equal(told.length, 2);
  });
});

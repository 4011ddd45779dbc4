/** What a device with developer tools must not get out of the acquirer, nor out of the books. */
import assert from 'node:assert/strict';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'node:test';
import { startAcquirerProcess } from '../../scripts/setup/acquirer.mjs';
import { startApplication } from '../../scripts/setup/application.mjs';
import { freePort } from '../../scripts/setup/ports.mjs';
import { BUSINESS, customerId, deviceId, idOf } from '../../src/lib/core/testing/made-up-business';
import { seal } from '../../src/lib/device/cards/seal';
import { shutOut } from '../../src/lib/server/access/devices';
import { testDatabase, type TestDatabase } from '../support/test-database';

const CARD = { scheme: 'Visa', number: '4000000000004471', entry: 'tap', outcome: 'approve' };
let t: TestDatabase;
let acquirer: Awaited<ReturnType<typeof startAcquirerProcess>>;
let app: Awaited<ReturnType<typeof startApplication>>;
let folder: string;
let own: string;
let other: string;
let sealed: string;

before(async () => {
  folder = mkdtempSync(join(tmpdir(), 'stall-till-cards-'));
  acquirer = await startAcquirerProcess(join(folder, 'acquirer.ndjson'));
  t = await testDatabase();
  own = await t.enrol(BUSINESS, deviceId(1));
  other = await t.enrol(BUSINESS, deviceId(2));
  const port = await freePort();
  app = await startApplication({ databaseUrl: t.url, port, quiet: true, acquirer });
  const { key } = (await (await get('/api/cards/key')).json()) as { key: JsonWebKey };
  sealed = await seal(key, CARD);
});
after(async () => {
  await app.stop();
  await acquirer.stop();
  await t.end();
  rmSync(folder, { recursive: true, force: true });
});

const get = (path: string): Promise<Response> =>
  fetch(app.origin + path, { headers: { authorization: `Bearer ${own}` } });

async function post(path: string, body: unknown, bearer = own) {
  const response = await fetch(app.origin + path, {
    method: 'POST',
    headers: {
      'content-type': 'application/json',
      origin: app.origin,
      authorization: `Bearer ${bearer}`,
    },
    body: JSON.stringify(body),
  });
  const said = (await response.json()) as { code?: string; state?: string; message?: string };
  return { status: response.status, ...said };
}

const ask = (payment: string, more: object = {}, bearer = own) =>
  post(
    '/api/cards/payments',
    { payment, amount: 1250, currency: 'GBP', sealed, capture: true, voice: '', ...more },
    bearer,
  );

describe('a card payment', () => {
  const payment = idOf(60, 1);

  it('that is held is neither taken nor let go of without an entry that decides it', async () => {
    assert.equal((await ask(payment, { capture: false })).state, 'authorised');
    for (const bearer of [own, other])
      for (const does of ['capture', 'release']) {
        const said = await post(`/api/cards/${does}`, { payment }, bearer);
        assert.deepEqual([does, said.status, said.code], [does, 409, 'card/not-decided']);
      }
    // Nor for an amount that the asker makes up.
    const said = await post('/api/cards/capture', { payment, amount: 1 });
    assert.equal(said.status, 422);
    assert.equal((await ask(payment, { capture: false })).state, 'authorised');
  });

  it('is not undone by a device that did not ask for it; the one that did may', async () => {
    const said = await post('/api/cards/cancel', { payment }, other);
    assert.deepEqual([said.status, said.code], [409, 'card/other-device']);
    assert.equal((await ask(payment, { capture: false })).state, 'authorised');
    assert.equal((await post('/api/cards/cancel', { payment })).status, 200);
  });

  it('is not asked for another amount under the same reference', async () => {
    const again = idOf(60, 2);
    assert.equal((await ask(again)).state, 'captured');
    assert.equal((await ask(again, { amount: 1 })).status, 409);
  });
});

describe('an acquirer that cannot say', () => {
  const refuse = (refusal: object): Promise<Response> =>
    fetch(`${acquirer.url}/faults`, {
      method: 'POST',
      headers: { authorization: `Bearer ${acquirer.apiKey}` },
      body: JSON.stringify({ refuse: 1, refusal }),
    });

  for (const refusal of [
    { status: 401, code: 'key', message: 'the API key is not known' },
    { status: 429, code: 'busy', message: 'too many requests' },
    { status: 422, code: 'wrong', message: 'reference and amount are needed' },
    { status: 404, code: 'nowhere', message: 'there is nothing here' },
  ])
    it(`is no end of a payment: ${String(refusal.status)}, ${refusal.message}`, async () => {
      const payment = idOf(60, 100 + refusal.status);
      await refuse(refusal);
      const said = await ask(payment);
      assert.deepEqual([said.status, said.code], [409, 'card/not-now']);
      assert.match(said.message ?? '', new RegExp(refusal.message));
      assert.equal((await ask(payment)).state, 'captured');
      await refuse(refusal);
      assert.equal((await post('/api/cards/cancel', { payment })).code, 'card/not-now');
      // Nor does it say that a card which was charged never was.
      assert.equal((await ask(payment)).state, 'captured');
      assert.equal((await post('/api/cards/cancel', { payment })).state, 'reversed');
    });
});

describe('what a device that was shut out had carried', () => {
  it('is sent by another one, under the same reference and once', async () => {
    const payment = idOf(60, 300);
    assert.equal((await ask(payment)).state, 'captured');
    assert.equal((await ask(payment, {}, other)).code, 'card/other-device');
    await shutOut(t.database, { business: BUSINESS, device: deviceId(1) }, Date.now());
    assert.equal((await ask(payment, {}, other)).state, 'captured');
    await t.database.sequelize.query('UPDATE access_devices SET isShutOut = 0');
  });
});

describe('a card on file', () => {
  it('is not charged by what the acquirer calls it, whoever knows that', async () => {
    const said = await ask(idOf(60, 3), { sealed: '', token: 'card-0001' });
    assert.equal(said.status, 422);
    assert.match(said.message ?? '', /token/);
  });

  it('is not charged for a customer who has none, nor kept for one whom nobody knows', async () => {
    const customer = customerId(1);
    const charged = await ask(idOf(60, 4), { sealed: '', customer });
    assert.equal(charged.status, 409);
    const kept = await post('/api/cards/keep', { customer, sealed, consent: 'spoken' });
    assert.deepEqual([kept.status, kept.code], [409, 'customer/unknown']);
  });
});

describe('what a device asks of the books', () => {
  for (const path of [
    '/api/sync/start?from=nonsense',
    '/api/sync/start?from={"table":"access_devices","after":[]}',
    '/api/sync/start?from={"table":"sales","after":["a","b","c","d"]}',
    "/api/sync/photos?after=' OR 1=1",
  ])
    it(`is not answered when it is ${path}`, async () => {
      const response = await get(
        path.replace(/=(.*)$/, (_, what: string) => `=${encodeURIComponent(what)}`),
      );
      const said = (await response.json()) as { code?: string };
      assert.deepEqual([response.status, said.code], [422, 'query/wrong']);
    });

  it('has no row of a table that is no record of its own', async () => {
    const wanted = ['access_devices', 'cards_on_file', 'sales', '__proto__'].map((table) => ({
      table,
      id: deviceId(1),
    }));
    const said = (await post('/api/sync/records', { wanted })) as unknown as {
      records: { row: unknown }[];
    };
    assert.deepEqual(
      said.records.map(({ row }) => row),
      [null, null, null, null],
    );
  });
});

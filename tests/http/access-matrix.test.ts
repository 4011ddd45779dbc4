/**
 * Who may do what, as one table that is the test: every server route as everybody. `yes` is an
 * answer, `401` and the like a refusal; a route that is missing here, or in the list that the server
 * goes by, fails.
 */
import assert from 'node:assert/strict';
import { readdirSync } from 'node:fs';
import { request } from 'node:http';
import { after, before, describe, it } from 'node:test';
import type { z } from 'zod';
import { startApplication } from '../../scripts/setup/application.mjs';
import { freePort } from '../../scripts/setup/ports.mjs';
import { knownLinesSchema } from '../../src/lib/core/bank/take-statement';
import { draft } from '../../src/lib/core/daybook/kinds';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { eventLedgerSchema } from '../../src/lib/core/ledger/event-ledger';
import { behindPageSchema } from '../../src/lib/core/settle/behind-row';
import { editionsSchema } from '../../src/lib/core/settle/editions';
import { allLooseEndsSchema } from '../../src/lib/core/settle/event-loose-ends';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import {
  BUSINESS,
  deviceId,
  EVENT,
  idOf,
  item,
  personBody,
  personId,
} from '../../src/lib/core/testing/made-up-business';
import { foundedDrafts } from '../../src/lib/core/testing/founded';
import { shutOut } from '../../src/lib/server/access/devices';
import { Accounts } from '../../src/lib/server/access/accounts';
import { append } from '../../src/lib/server/daybook/append';
import { access } from '../../src/lib/server/http/access';
import { testDatabase, type TestDatabase } from '../support/test-database';

const OTHER_BUSINESS = idOf(1, 2);
const [OURS, THEIRS, OUT] = [deviceId(1), deviceId(2), deviceId(3)];
const askers = [
  'stranger',
  'their device',
  'their owner',
  'our device',
  'our device, shut out',
  'our owner',
] as const;
type Asker = (typeof askers)[number];

/** What devices check the answers of these routes with. */
const answers: Readonly<Record<string, z.ZodType>> = {
  'GET /api/bank/lines': knownLinesSchema,
  'GET /api/events/[id]/behind': behindPageSchema,
  'GET /api/events/[id]/editions': editionsSchema,
  'GET /api/ledger': eventLedgerSchema,
  'GET /api/loose-ends': allLooseEndsSchema,
};

// oxfmt-ignore
/** Columns in the order of `askers`. `404`: as if it did not exist. */
const table: readonly (readonly [string, string, ...string[]])[] = [
  //                                            stranger  their d.  their o.  our d.   shut out our owner
  ['GET /healthz', '/healthz',                            '200', '200', '200', '200', '200', '200'],
  ['POST /api/enrol', '/api/enrol',                       '422', '422', '422', '422', '422', '422'],
  ['POST /api/account/sign-up', '/api/account/sign-up',   '422', '422', '422', '422', '422', '422'],
  ['POST /api/account/sign-in', '/api/account/sign-in',   '422', '422', '422', '422', '422', '422'],
  ['POST /api/account/forgot', '/api/account/forgot',     '422', '422', '422', '422', '422', '422'],
  ['POST /api/account/reset', '/api/account/reset',       '422', '422', '422', '422', '422', '422'],
  ['POST /api/account/verify', '/api/account/verify',     '422', '422', '422', '422', '422', '422'],
  ['POST /api/account/verify/letter', '/api/account/verify/letter',
                                                          '401', '401', '503', '401', '401', '503'],
  ['POST /api/account/passkey/challenge', '/api/account/passkey/challenge',
                                                          '200', '200', '200', '200', '200', '200'],
  ['POST /api/account/passkey/sign-in', '/api/account/passkey/sign-in',
                                                          '422', '422', '422', '422', '422', '422'],
  ['POST /api/account/proof', '/api/account/proof',       '401', '401', '422', '401', '401', '422'],
  ['POST /api/account/passkeys/challenge', '/api/account/passkeys/challenge',
                                                          '401', '401', '200', '401', '401', '200'],
  ['POST /api/account/passkeys', '/api/account/passkeys', '401', '401', '422', '401', '401', '422'],
  ['DELETE /api/account/passkeys/[id]', '/api/account/passkeys/PASSKEY',
                                                          '401', '401', '404', '401', '401', '200'],
  ['POST /api/account/password', '/api/account/password', '401', '401', '422', '401', '401', '422'],
  ['GET /api/calendar/[token]', `/api/calendar/${'f'.repeat(64)}.ics`,
                                                          '404', '404', '404', '404', '404', '404'],
  ['GET /api/account/calendar', '/api/account/calendar',  '401', '401', '200', '401', '401', '200'],
  ['POST /api/account/calendar', '/api/account/calendar', '401', '401', '200', '401', '401', '200'],
  ['DELETE /api/account/calendar', '/api/account/calendar',
                                                          '401', '401', '200', '401', '401', '200'],
  ['GET /api/account', '/api/account',                    '401', '401', '200', '401', '401', '200'],
  ['DELETE /api/account/sessions/[id]', '/api/account/sessions/SESSION',
                                                          '401', '401', '404', '401', '401', '200'],
  ['GET /api/bank', '/api/bank',                          '401', '401', '200', '401', '401', '200'],
  ['GET /api/bank/lines', '/api/bank/lines?from=2026-11-01&to=2026-11-30',
                                                          '401', '401', '200', '401', '401', '200'],
  ['GET /api/pay', '/api/pay',                            '401', '401', '200', '401', '401', '200'],
  ['GET /api/devices', '/api/devices',                    '401', '401', '200', '401', '401', '200'],
  ['POST /api/devices/code', '/api/devices/code',         '401', '401', '200', '401', '401', '200'],
  ['GET /api/devices/[id]/unsent', `/api/devices/${OUT}/unsent`,
                                                          '401', '401', '404', '401', '401', '200'],
  ['POST /api/devices/[id]/unsent', `/api/devices/${OUT}/unsent`,
                                                          '401', '401', '404', '401', '401', '422'],
  ['POST /api/devices/[id]/shut-out', `/api/devices/${OUT}/shut-out`,
                                                          '401', '401', '404', '401', '401', '200'],
  ['GET /api/sync/start', '/api/sync/start',              '401', '200', '401', '200', '403', '401'],
  ['GET /api/sync/photos', '/api/sync/photos?after=',     '401', '200', '401', '200', '403', '401'],
  ['POST /api/sync/records', '/api/sync/records',         '401', '422', '401', '422', '403', '401'],
  ['GET /api/sync/pull', '/api/sync/pull?after=0',        '401', '200', '401', '200', '403', '401'],
  ['POST /api/sync/push', '/api/sync/push',               '401', '422', '401', '422', '403', '401'],
  ['POST /api/sync/unsent', '/api/sync/unsent',           '401', '403', '401', '403', '422', '401'],
  ['GET /api/events/[id]/takings', `/api/events/${EVENT}/takings`,
                                                          '401', '404', '401', '200', '403', '401'],
  ['GET /api/events/[id]/settling', `/api/events/${EVENT}/settling`,
                                                          '401', '404', '401', '200', '403', '401'],
  ['GET /api/events/[id]/editions', `/api/events/${EVENT}/editions`,
                                                          '401', '404', '401', '200', '403', '401'],
  ['GET /api/sales', '/api/sales?find=9',                 '401', '200', '401', '200', '403', '401'],
  ['GET /api/sales/[id]', `/api/sales/${EVENT}`,          '401', '404', '401', '404', '403', '401'],
  ['GET /api/held', `/api/held?account=credit:${EVENT}`,  '401', '200', '401', '200', '403', '401'],
  ['GET /api/customers/[id]/documents', `/api/customers/${EVENT}/documents`,
                                                          '401', '200', '401', '200', '403', '401'],
  ['GET /api/documents/[id]', `/api/documents/${EVENT}`,  '401', '404', '401', '404', '403', '401'],
  ['GET /api/events/[id]/behind', `/api/events/${EVENT}/behind?of=way&id=cash`,
                                                          '401', '200', '401', '200', '403', '401'],
  ['POST /api/invoices/number', '/api/invoices/number',   '401', '422', '401', '422', '403', '401'],
  ['GET /api/ledger', `/api/ledger?event=${EVENT}&by=day&only=all`,
                                                          '401', '404', '401', '200', '403', '401'],
  ['GET /api/ledger/chart', '/api/ledger/chart',          '401', '200', '401', '200', '403', '401'],
  ['GET /api/loose-ends', '/api/loose-ends',              '401', '200', '401', '200', '403', '401'],
  ['GET /api/kept', '/api/kept',                          '401', '200', '401', '200', '403', '401'],
  ['GET /api/cards/key', '/api/cards/key',                '401', '503', '401', '503', '403', '401'],
  ['GET /api/cards/report', '/api/cards/report?day=2026-11-22',
                                                          '401', '503', '401', '503', '403', '401'],
  ['POST /api/cards/payments', '/api/cards/payments',     '401', '422', '401', '422', '403', '401'],
  ['POST /api/cards/cancel', '/api/cards/cancel',         '401', '422', '401', '422', '403', '401'],
  ['POST /api/cards/capture', '/api/cards/capture',       '401', '422', '401', '422', '403', '401'],
  ['POST /api/cards/release', '/api/cards/release',       '401', '422', '401', '422', '403', '401'],
  ['POST /api/cards/refund', '/api/cards/refund',         '401', '422', '401', '422', '403', '401'],
  ['POST /api/cards/keep', '/api/cards/keep',             '401', '422', '401', '422', '403', '401'],
  ['POST /api/account/sign-out', '/api/account/sign-out', '401', '401', '200', '401', '401', '200'],
];

let t: TestDatabase;
let app: Awaited<ReturnType<typeof startApplication>>;
const headers = {} as Record<Asker, Record<string, string>>;
/** A second session of our owner, to be ended. */
let session: string;
const writer = new DeviceWriter(1);
const now = Date.UTC(2026, 10, 22, 10);

before(async () => {
  t = await testDatabase();
  const accounts = new Accounts(t.database, t.enrolment);
  const bearer = async (business: string, device: string) => ({
    authorization: `Bearer ${await t.enrol(business, device)}`,
  });
  const cookie = async (business: string, email: string) => {
    await accounts.addOwner(business, email, 'three quiet herons', Date.now());
    const owner = await accounts.ownerOf(email, 'three quiet herons');
    assert.ok(owner);
    const token = await accounts.begin(owner, 'test', Date.now());
    assert.ok(token);
    return { owner, headers: { cookie: `__Host-stall-till=${token}` } };
  };
  const ours = await cookie(BUSINESS, 'ours@stall.example');
  Object.assign(headers, {
    stranger: {},
    'their device': await bearer(OTHER_BUSINESS, THEIRS),
    'their owner': (await cookie(OTHER_BUSINESS, 'theirs@stall.example')).headers,
    'our device': await bearer(BUSINESS, OURS),
    'our device, shut out': await bearer(BUSINESS, OUT),
    'our owner': ours.headers,
  });
  const second = await accounts.begin(ours.owner, 'second', Date.now());
  assert.ok(second);
  session = (await accounts.identify(second, Date.now()))!.session;
  await shutOut(t.database, { business: BUSINESS, device: OUT }, Date.now());
  await t.database.sequelize.query(
    'INSERT INTO access_passkeys (credential, id, owner, publicKey, counter, transports, name, made) ' +
      "VALUES ('none', ?, ?, '', 0, '[]', 'Ours', '')",
    { replacements: [idOf(7, 7), ours.owner.owner] },
  );
  const ref = { business: BUSINESS, device: OURS };
  const [owner, ...rest] = foundedDrafts(writer);
  await append(t.database, ref, writer.append([owner!], now, null));
  await append(t.database, ref, writer.append(rest, now, personId(1)));
  app = await startApplication({ databaseUrl: t.url, port: await freePort(), quiet: true });
});
after(async () => {
  await app.stop();
  await t.end();
});

async function ask(as: Asker, route: string, path: string, body = '{}'): Promise<Response> {
  const method = route.split(' ')[0]!;
  return await fetch(app.origin + path.replace('SESSION', session).replace('PASSKEY', idOf(7, 7)), {
    method,
    headers: { ...headers[as], origin: app.origin, 'content-type': 'application/json' },
    ...(method === 'POST' ? { body } : {}),
  });
}

describe('every route, as everybody', () => {
  it('the table, the folders and the list that the server goes by name the same routes', () => {
    const onDisk = readdirSync('src/routes', { recursive: true, encoding: 'utf8' })
      .filter((file) => file.endsWith('+server.ts'))
      .map((file) => `/${file.replace('/+server.ts', '')}`);
    const inTable = table.map(([route]) => route);
    const paths = (routes: readonly string[]) =>
      [...new Set(routes.map((route) => route.split(' ')[1]!))].sort();
    assert.deepEqual(paths(inTable), onDisk.sort());
    assert.deepEqual(
      inTable.filter((route) => route !== 'GET /healthz').sort(),
      Object.keys(access).sort(),
    );
  });

  for (const [route, path, ...wanted] of table) {
    // Our owner's last, since ending a session or signing out can be done once.
    for (const [at, as] of askers.entries()) {
      it(`${route} as ${as}: ${wanted[at]!}`, async () => {
        const response = await ask(as, route, path);
        assert.equal(String(response.status), wanted[at]);
        const text = await response.text();
        // What a device takes from there is what is answered.
        if (response.status === 200) answers[route]?.parse(JSON.parse(text));
        if (as.startsWith('their') && response.status === 200) {
          for (const ours of [BUSINESS, OURS, OUT, EVENT, 'Green', 'Person']) {
            assert.ok(!text.includes(ours), `${ours} in ${text}`);
          }
        }
      });
    }
  }

  it('a method that a route does not have, and a path that does not exist, answer nobody', async () => {
    for (const as of askers) {
      for (const [method, path] of [
        ['PUT', '/api/devices'],
        ['POST', '/api/kept'],
        ['GET', '/api/nothing'],
        ['GET', '/api/constructor'],
      ] as const) {
        const response = await fetch(app.origin + path, { method, headers: headers[as] });
        assert.ok([401, 403, 404, 405].includes(response.status), `${method} ${path}`);
      }
    }
  });

  /** As it is, without the tidying that `fetch` does. */
  const raw = async (path: string): Promise<{ status: number; text: string }> =>
    await new Promise((resolve, reject) => {
      const { hostname, port } = new URL(app.origin);
      const asking = request({ hostname, port, path, method: 'GET' }, (response) => {
        let text = '';
        response.setEncoding('utf8').on('data', (part: string) => (text += part));
        response.on('end', () => resolve({ status: response.statusCode ?? 0, text }));
      });
      asking.on('error', reject).end();
    });
  for (const path of [
    '/../package.json',
    '/../../../../etc/passwd',
    '/%2e%2e/%2e%2e/package.json',
    '/..%2f..%2fpackage.json',
    '/_app/..%5c..%5cpackage.json',
    '/_app/%2e%2e/%2e%2e/server/index.js',
    '/api/sync/pull/../../devices',
    '/api//devices',
    '/api/devices%00',
    '/%',
  ]) {
    it(`the path ${path} leads nowhere`, async () => {
      const { status, text } = await raw(path);
      assert.ok(status >= 400 && status < 500, String(status));
      assert.ok(
        !/root:|"dependencies"|node_modules|\bat .+:\d+:\d+/.test(text),
        text.slice(0, 200),
      );
    });
  }
});

describe('what people may write, through the sync', () => {
  const { setStamp: _stamp, ...goods } = item(1, 450);
  const price = (): Draft =>
    draft('item.set', writer.newId(), null, { ...goods, barcodes: [], taxes: [] });
  const helper = (): Draft => draft('staff.set', writer.newId(), null, personBody(9, []));
  const opened = (): Draft =>
    draft('drawer.opened', writer.newId(), EVENT, { name: 'Tin', float: 0, counts: [] });
  const people = [
    [personId(1), 'owner'],
    [personId(2), 'lead'],
    [personId(3), 'helper'],
    [null, 'nobody signed in'],
  ] as const;
  // oxfmt-ignore
  const deeds: readonly (readonly [string, () => readonly Draft[], string, string, string, string])[] = [
    //                                                     owner      lead        helper      nobody
    ['a sale',          () => writer.sale([[1, 1]], 0, now), 'applied', 'applied', 'applied', 'doubted'],
    ['a drawer opened', () => [opened()],                    'applied', 'applied', 'applied', 'doubted'],
    ['a price',         () => [price()],                     'applied', 'barred',  'barred',  'barred'],
    ['a person',        () => [helper()],                    'applied', 'barred',  'barred',  'barred'],
  ];
  for (const [deed, drafts, ...wanted] of deeds) {
    for (const [at, [by, who]] of people.entries()) {
      it(`${deed} by ${who}: ${wanted[at]!}`, async () => {
        const entries = writer.append(drafts(), now, by);
        const body = JSON.stringify({ entries });
        const response = await ask('our device', 'POST', '/api/sync/push', body);
        const { kept, refused } = (await response.json()) as {
          kept: { state: string }[];
          refused: unknown;
        };
        assert.equal(refused, null);
        assert.equal(kept[0]?.state ?? 'applied', wanted[at]);
      });
    }
  }
});

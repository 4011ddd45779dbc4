/** The built server's routes as a stranger, a device, and somebody with bad manners meet them. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { startApplication } from '../../scripts/setup/application.mjs';
import { freePort } from '../../scripts/setup/ports.mjs';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { BUSINESS, deviceId, EVENT, idOf } from '../../src/lib/core/testing/made-up-business';
import { select } from '../../src/lib/server/database/select';
import { testDatabase, type TestDatabase } from '../support/test-database';

const now = Date.UTC(2026, 10, 22, 10);
const writer = new DeviceWriter(1);
const [event, load] = [
  ...writer.write({ does: 'event', name: 'Green' }, now),
  ...writer.write({ does: 'load', item: 1, quantity: 1000 }, now),
];
let t: TestDatabase;
let app: Awaited<ReturnType<typeof startApplication>>;
let token: string;
let otherToken: string;

before(async () => {
  t = await testDatabase();
  token = await t.enrol(BUSINESS, deviceId(1));
  otherToken = await t.enrol(idOf(1, 2), deviceId(2));
  app = await startApplication({ databaseUrl: t.url, port: await freePort(), quiet: true });
});
after(async () => {
  await app.stop();
  await t.end();
});

interface Said {
  readonly status: number;
  readonly body: Record<string, unknown>;
}

async function ask(path: string, options: RequestInit & { as?: string } = {}): Promise<Said> {
  const response = await fetch(app.origin + path, {
    ...options,
    headers: {
      ...(options.as === undefined ? {} : { authorization: `Bearer ${options.as}` }),
      ...(options.method === 'POST' ? { 'content-type': 'application/json' } : {}),
      ...(options.headers as Record<string, string> | undefined),
    },
  });
  const text = await response.text();
  return { status: response.status, body: JSON.parse(text) as Record<string, unknown> };
}
const push = (body: unknown, as: string | undefined = token): Promise<Said> =>
  ask('/api/sync/push', {
    method: 'POST',
    body: typeof body === 'string' ? body : JSON.stringify(body),
    ...(as === undefined ? {} : { as }),
  });
const stored = async (): Promise<number> => {
  const [row] = await select<{ n: string }>(
    t.database,
    'SELECT COUNT(*) AS n FROM daybook_entries',
    [],
  );
  return Number(row?.n);
};

describe('a stranger', () => {
  const routes = [
    ['GET', '/api/sync/pull?after=0'],
    ['GET', '/api/sync/start'],
    ['POST', '/api/sync/push'],
    ['GET', `/api/events/${EVENT}/takings`],
    ['GET', '/api/kept'],
    ['GET', '/api/anything'],
  ] as const;
  for (const [method, path] of routes) {
    it(`is turned away from ${method} ${path}`, async () => {
      const body = method === 'POST' ? { body: '{}' } : {};
      for (const as of [undefined, 'f'.repeat(64), 'nonsense']) {
        const said = await ask(path, { method, ...body, ...(as === undefined ? {} : { as }) });
        assert.deepEqual([said.status, said.body['code']], [401, 'device/unknown']);
      }
    });
  }

  it('may ask whether the server is well, and hears of no business', async () => {
    assert.deepEqual(await ask('/healthz'), {
      status: 200,
      body: { server: 'ok', database: 'ok' },
    });
  });

  it('keeps the connection for more than a minute between two questions', async () => {
    const response = await fetch(`${app.origin}/healthz`);
    await response.text();
    assert.equal(response.headers.get('keep-alive'), 'timeout=75');
  });
  it('hears that a code is wrong', async () => {
    const body = JSON.stringify({
      code: 'AAAAA-AAAAA',
      device: deviceId(9),
      token: 'a'.repeat(64),
    });
    const said = await ask('/api/enrol', { method: 'POST', body });
    assert.deepEqual([said.status, said.body['code']], [409, 'code/unknown']);
  });
});

describe('a push with something wrong', () => {
  const wrong = [
    ['invalid JSON', '{"entries": [', 400, 'body/not-json', /not valid JSON/],
    ['no entries', { entries: [] }, 422, 'body/wrong', /^entries: /],
    [
      'too many entries',
      { entries: Array.from({ length: 201 }, () => event) },
      422,
      'body/wrong',
      /^entries: /,
    ],
    [
      'an entry without a seq',
      { entries: [{ ...event, seq: undefined }] },
      422,
      'body/wrong',
      /^entries\.0\.seq: /,
    ],
    [
      'a seq below one',
      { entries: [{ ...event, seq: 0 }] },
      422,
      'body/wrong',
      /^entries\.0\.seq: /,
    ],
    ['a field nobody knows', { entries: [event], more: 1 }, 422, 'body/wrong', /Unrecognized key/],
    ['a list for a body', [], 422, 'body/wrong', /\(the whole\): /],
    ['a gap', { entries: [load] }, 409, undefined, undefined],
  ] as const;
  for (const [about, body, status, code, message] of wrong) {
    it(`is refused: ${about}; nothing is stored`, async () => {
      const said = await push(body);
      assert.equal(said.status, status);
      if (code === undefined)
        assert.equal((said.body['refused'] as { code: string }).code, 'chain/gap');
      else {
        assert.equal(said.body['code'], code);
        assert.match(String(said.body['message']), message);
      }
      assert.equal(await stored(), 0);
    });
  }

  it('is refused when it is 50 MB long, and the server goes on', async () => {
    const said = await push(`{"entries":[${'"x",'.repeat(12_500_000)}0]}`).catch(
      (error: unknown) => {
        // The connection may be cut while we are still sending; that is a refusal as well.
        assert.match(
          String((error as { cause?: { code?: string } }).cause?.code),
          /ECONNRESET|EPIPE/,
        );
        return null;
      },
    );
    if (said !== null) assert.deepEqual([said.status, said.body['code']], [413, 'body/too-large']);
    assert.equal(await stored(), 0);
    assert.equal((await ask('/healthz')).status, 200);
  });

  it('is refused at 50 MB also when its length is not announced', async () => {
    const chunk = new TextEncoder().encode('"xxxxxxxxxxxxxxxxxxxxxxxxxxxx",'.repeat(33_000));
    let sent = 0;
    const body = new ReadableStream<Uint8Array>({
      pull(controller) {
        if (sent < 50) controller.enqueue(chunk);
        else controller.close();
        sent += 1;
      },
    });
    const said = await ask('/api/sync/push', {
      method: 'POST',
      body,
      as: token,
      duplex: 'half',
    } as RequestInit).catch(() => null);
    if (said !== null) assert.deepEqual([said.status, said.body['code']], [413, 'body/too-large']);
    assert.equal(await stored(), 0);
    assert.equal((await ask('/healthz')).status, 200);
  });

  it('is refused when it is not JSON at all', async () => {
    const said = await ask('/api/sync/push', {
      method: 'POST',
      as: token,
      body: 'entries=1',
      headers: { 'content-type': 'application/x-ndjson' },
    });
    assert.deepEqual([said.status, said.body['code']], [415, 'body/other-type']);
  });

  it('is refused when it belongs to another business', async () => {
    const said = await push({ entries: [event] }, otherToken);
    assert.equal((said.body['refused'] as { code: string }).code, 'entry/other-business');
    assert.equal(await stored(), 0);
  });
});

describe('a device', () => {
  it('sends, and another business sees nothing of it', async () => {
    const said = await push({ entries: [event, load] });
    const { now: servers, ...answered } = said.body;
    assert.ok(Math.abs(Number(servers) - Date.now()) < 60_000);
    assert.deepEqual(
      [said.status, answered],
      [200, { have: 2, refused: null, kept: [], held: [] }],
    );
    const own = await ask(`/api/events/${EVENT}/takings`, { as: token });
    assert.equal((own.body['stock'] as unknown[]).length, 1);
    const foreign = await ask(`/api/events/${EVENT}/takings`, { as: otherToken });
    assert.deepEqual([foreign.status, foreign.body['code']], [404, 'event/unknown']);
    const pulled = await ask('/api/sync/pull?after=0', { as: otherToken });
    const { now: told, ...rest } = pulled.body;
    assert.equal(typeof told, 'number');
    assert.deepEqual(rest, {
      entries: [],
      position: 0,
      latest: 0,
      have: 0,
      isCopy: false,
      isSetBack: false,
      mark: '',
      passed: [],
      shutOut: [],
    });
  });

  it('finds sales of any age, its own alone, and opens them', async () => {
    const later = now + 60_000;
    const rung = [
      ...writer.write({ does: 'open', float: 0 }, later),
      ...writer.write({ does: 'sale', goods: [[1, 2]], over: 0 }, later),
    ];
    assert.equal((await push({ entries: rung })).body['refused'], null);
    const sale = rung.find(({ kind }) => kind === 'sale.rung')!;
    const [line] = sale.body['lines'] as { name: string }[];
    const found = async (typed: string, as = token): Promise<unknown> => {
      const said = await ask(`/api/sales?find=${encodeURIComponent(typed)}`, { as });
      const list = said.body['found'] as { sale: { id: string }; lines: unknown[] }[] | undefined;
      return list?.map((each) => [each.sale.id, each.lines.length]) ?? said.body['code'];
    };
    const one = [[sale.id, 1]];
    const total = Number(sale.body['total']) / 100;
    const name = line!.name;
    // The number, the total, a word of it, a word as somebody without accents types it.
    const accented = name.replace('i', 'í').toUpperCase();
    for (const typed of ['D1-1', total.toFixed(2), name.slice(1), accented])
      assert.deepEqual(await found(typed), one, typed);
    // What stands for anything in a pattern stands for itself.
    for (const typed of ['D1-9', '%', '_', `${name} zebra`])
      assert.deepEqual(await found(typed), [], typed);
    assert.deepEqual(await found('D1-1', otherToken), []);
    assert.deepEqual(
      [await found(' '), await found('x'.repeat(101))],
      ['find/typed', 'find/typed'],
    );

    const opened = await ask(`/api/sales/${sale.id}`, { as: token });
    const { payments, lines, voids } = opened.body as Record<string, unknown[]>;
    assert.deepEqual([payments?.length, lines?.length, voids?.length], [1, 1, 0]);
    const foreign = await ask(`/api/sales/${sale.id}`, { as: otherToken });
    assert.deepEqual([foreign.status, foreign.body['code']], [404, 'sale/unknown']);
  });

  for (const after of ['-1', 'x', '1.5', '9'.repeat(20)]) {
    it(`is told that "${after.slice(0, 6)}" is no position`, async () => {
      const said = await ask(`/api/sync/pull?after=${after}`, { as: token });
      assert.deepEqual([said.status, said.body['code']], [422, 'query/wrong']);
    });
  }

  it('is turned away at once when it has been shut out; what it had sent stays', async () => {
    await t.database.sequelize.query('UPDATE access_devices SET isShutOut = 1 WHERE device = ?', {
      replacements: [deviceId(1)],
    });
    const said = await push({ entries: [event] });
    assert.deepEqual([said.status, said.body['code'], await stored()], [403, 'device/shut-out', 5]);
  });
});

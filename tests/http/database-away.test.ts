/** The way to the database is cut and comes back, under a server that goes on. */
import assert from 'node:assert/strict';
import net from 'node:net';
import { after, before, describe, it } from 'node:test';
import { startApplication } from '../../scripts/setup/application.mjs';
import { freePort } from '../../scripts/setup/ports.mjs';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { BUSINESS, deviceId } from '../../src/lib/core/testing/made-up-business';
import { testDatabase, type TestDatabase } from '../support/test-database';

/** Passes everything on to the database, until it is told not to. */
class Way {
  readonly #open = new Set<net.Socket>();
  #isThere = true;
  readonly #server = net.createServer((from) => {
    if (!this.#isThere) {
      from.destroy();
      return;
    }
    const to = net.connect(this.port, '127.0.0.1');
    for (const socket of [from, to]) {
      this.#open.add(socket);
      socket.on('error', () => undefined).on('close', () => this.#open.delete(socket));
    }
    from.pipe(to).pipe(from);
  });
  constructor(readonly port: number) {}

  async listen(port: number): Promise<void> {
    await new Promise<void>((resolve) => this.#server.listen(port, '127.0.0.1', resolve));
  }
  cut(): void {
    this.#isThere = false;
    for (const socket of this.#open) socket.destroy();
  }
  mend(): void {
    this.#isThere = true;
  }
  end(): void {
    this.cut();
    this.#server.close();
  }
}

let t: TestDatabase;
let way: Way;
let app: Awaited<ReturnType<typeof startApplication>>;
let token: string;
before(async () => {
  t = await testDatabase();
  token = await t.enrol(BUSINESS, deviceId(1));
  const url = new URL(t.url);
  way = new Way(Number(url.port));
  const port = await freePort();
  await way.listen(port);
  url.port = String(port);
  app = await startApplication({ databaseUrl: url.href, port: await freePort(), quiet: true });
});
after(async () => {
  await app.stop();
  way.end();
  await t.end();
});

const [entry] = new DeviceWriter(1).write(
  { does: 'load', item: 1, quantity: 1000 },
  Date.UTC(2026, 10, 22, 9),
);
const json = { 'content-type': 'application/json' };
const asked: readonly (readonly [string, () => RequestInit])[] = [
  ['/api/sync/pull?after=0', () => ({ headers: { authorization: `Bearer ${token}` } })],
  ['/api/sync/start', () => ({ headers: { authorization: `Bearer ${token}` } })],
  ['/api/kept', () => ({ headers: { authorization: `Bearer ${token}` } })],
  [
    '/api/sync/push',
    () => ({
      method: 'POST',
      headers: { ...json, authorization: `Bearer ${token}` },
      body: JSON.stringify({ entries: [entry] }),
    }),
  ],
  [
    '/api/account/sign-in',
    () => ({
      method: 'POST',
      headers: { ...json, origin: app.origin },
      body: JSON.stringify({ email: 'maren@larkmoss.example', password: 'not the one' }),
    }),
  ],
  [
    '/api/enrol',
    () => ({
      method: 'POST',
      headers: json,
      body: JSON.stringify({ code: 'ABCD-EFGH', device: deviceId(2), token: 'a'.repeat(64) }),
    }),
  ],
];

describe('while the database is away', () => {
  it('every route says so, with when to ask again, and works once it is back', async () => {
    way.cut();
    for (const [path, options] of asked) {
      const response = await fetch(app.origin + path, options());
      const { code } = (await response.json()) as { code?: string };
      const again = response.headers.get('retry-after');
      assert.deepEqual(
        [path, response.status, code, again],
        [path, 503, 'server/no-database', '5'],
      );
    }
    way.mend();
    for (const [path, options] of asked.slice(0, 4)) {
      const response = await fetch(app.origin + path, options());
      assert.deepEqual([path, response.status], [path, 200]);
    }
  });
});

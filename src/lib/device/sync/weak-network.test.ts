/** Over a network that carries little: what takes long comes, what is silent ends, and sales get across. */
import assert from 'node:assert/strict';
import { afterEach, beforeEach, describe, it, mock } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { z } from 'zod';
import type { Entry } from '../../core/daybook/entry';
import { draft } from '../../core/daybook/kinds';
import { MOST_PUSHED } from '../../core/daybook/sync-messages';
import { BUSINESS, deviceId } from '../../core/testing/made-up-business';
import { DeviceDatabase } from '../database';
import { DeviceDaybook } from '../daybook';
import { enrol } from '../enrol';
import { newId } from '../new-id';
import { handOver } from '../shut-out';
import { askServer, type Asked } from './ask-server';
import { PortionSize } from './portion';
import { SyncRunner } from './runner';
import { Transport } from './transport';

const TOKEN = 'a'.repeat(64);
const answerSchema = z.strictObject({ is: z.string() });

/** Lets what was promised happen, without any time going by. */
const settled = async (): Promise<void> => {
  for (let turn = 0; turn < 50; turn += 1) await new Promise((resolve) => setImmediate(resolve));
};

/** A server whose answer is given piece by piece. */
function inPieces() {
  let pieces!: ReadableStreamDefaultController<Uint8Array>;
  let begin!: () => void;
  const body = new ReadableStream<Uint8Array>({
    start: (controller) => void (pieces = controller),
  });
  const fetching = ((_path: string, { signal }: RequestInit) =>
    new Promise<Response>((resolve, reject) => {
      signal!.addEventListener('abort', () => {
        reject(new Error('aborted'));
        pieces.error(new Error('aborted'));
      });
      begin = () => resolve(new Response(body));
    })) as typeof fetch;
  const encoder = new TextEncoder();
  return {
    fetching,
    begin: () => begin(),
    say: (bytes: Uint8Array) => pieces.enqueue(bytes),
    saying: (text: string) => pieces.enqueue(encoder.encode(text)),
    end: () => pieces.close(),
  };
}

describe('an answer over a weak network', () => {
  beforeEach(() => mock.timers.enable({ apis: ['setTimeout'] }));
  afterEach(() => mock.timers.reset());

  /** @returns What has come of the question by now; null while it is waited for. */
  function asking(server: ReturnType<typeof inPieces>) {
    let came: Asked<{ is: string }> | null = null;
    const question = { path: '/api/x', patience: 15_000 };
    void askServer(question, answerSchema, server.fetching).then((asked) => (came = asked));
    return async (): Promise<typeof came> => {
      await settled();
      return came;
    };
  }
  const passes = async (millis: number): Promise<void> => {
    await settled();
    for (let left = millis; left > 0; left -= 1000) mock.timers.tick(Math.min(1000, left));
    await settled();
  };

  it('is waited for as long as any of it comes, also where a letter is cut in two', async () => {
    const server = inPieces();
    const came = asking(server);
    await passes(14_000);
    server.begin();
    await passes(14_000);
    server.saying('{"is":"Caf');
    await passes(14_000);
    server.say(new Uint8Array([0xc3]));
    await passes(14_000);
    server.say(new Uint8Array([0xa9]));
    assert.equal(await came(), null);
    server.saying('"}');
    server.end();
    assert.deepEqual(await came(), { came: 'answer', answer: { is: 'Café' } });
  });

  it('is given up when nothing has come for a while, before it begins or in the middle', async () => {
    const silent = asking(inPieces());
    await passes(14_999);
    assert.equal(await silent(), null);
    await passes(1);
    assert.deepEqual(await silent(), { came: 'nothing', why: 'silence' });
    const server = inPieces();
    const cut = asking(server);
    await passes(0);
    server.begin();
    server.saying('{"is":');
    await passes(15_000);
    assert.deepEqual(await cut(), { came: 'nothing', why: 'silence' });
  });

  it('is told from what somebody else says, as a network does that wants a sign-in first', async () => {
    const says = (body: string, status = 200) =>
      askServer({ path: '/api/x' }, answerSchema, () =>
        Promise.resolve(new Response(body, { status })),
      );
    const unclear = { came: 'nothing', why: 'unclear' };
    assert.deepEqual(await says('<html>Welcome to the Wi-Fi of Pellow Green</html>'), unclear);
    assert.deepEqual(await says('{"something":"else"}'), unclear);
    assert.deepEqual(await says('{"message":"it broke"}', 500), unclear);
    assert.deepEqual(await says('{"code":"x/y","message":"no database"}', 503), {
      came: 'nothing',
      why: 'not now',
      says: 'no database',
    });
    assert.deepEqual(await says('{"code":"x/y","message":"not now"}', 409), {
      came: 'refusal',
      status: 409,
      refusal: { code: 'x/y', message: 'not now' },
    });
  });

  it('is still heard by a page that was frozen for longer than that', async () => {
    const server = inPieces();
    const came = asking(server);
    await settled();
    mock.timers.tick(10 * 60_000);
    assert.equal(await came(), null);
    server.begin();
    server.saying('{"is":"there"}');
    server.end();
    assert.deepEqual(await came(), { came: 'answer', answer: { is: 'there' } });
  });
});

describe('a question that a network loses at once', () => {
  /** A network that loses the first so many questions. @returns What came, and how often it was asked. */
  async function asked(losses: number, isHarmless: boolean, status = 0) {
    let times = 0;
    const fetching = (() => {
      times += 1;
      if (times > losses) return Promise.resolve(Response.json({ is: 'there' }));
      return status === 0
        ? Promise.reject(new TypeError('lost'))
        : Promise.resolve(Response.json({ code: 'x/y', message: 'not now' }, { status }));
    }) as typeof fetch;
    const { came } = await askServer({ path: '/api/x', isHarmless }, answerSchema, fetching);
    return [came, times];
  }

  it('is asked again, twice, where asking does no harm', async () => {
    assert.deepEqual(await asked(2, true), ['answer', 3]);
    assert.deepEqual(await asked(3, true), ['nothing', 3]);
    assert.deepEqual(await asked(1, true, 503), ['answer', 2]);
  });

  it('is never asked again where it might be done twice, nor where it was refused', async () => {
    assert.deepEqual(await asked(1, false), ['nothing', 1]);
    assert.deepEqual(await asked(1, true, 403), ['refusal', 1]);
  });
});

describe('how much is sent at once', () => {
  it('is less each time nothing comes back, never nothing, and all again once it does', () => {
    const size = new PortionSize();
    assert.equal(size.most, MOST_PUSHED);
    const after: number[] = [];
    for (let time = 0; time < 6; time += 1) {
      size.hear('nothing', 1000);
      after.push(size.most);
    }
    assert.deepEqual(after, [50, 12, 3, 1, 1, 1]);
    for (let time = 0; time < 8; time += 1) size.hear(time % 2 === 0 ? 'answer' : 'refusal', 1);
    assert.equal(size.most, MOST_PUSHED);
    size.hear('nothing', 40);
    assert.equal(size.most, 10);
  });
});

describe('a network that carries a few entries at a time', () => {
  const CARRIES = 9;
  let db: DeviceDatabase;
  beforeEach(() => {
    db = new DeviceDatabase('test', { indexedDB: new IDBFactory(), IDBKeyRange });
  });

  async function written(entries: number): Promise<void> {
    await db.write('identity', {
      business: BUSINESS,
      device: deviceId(1),
      number: 1,
      token: TOKEN,
    });
    const body = { id: deviceId(1), name: 'Phone', number: 1, event: null, drawer: null };
    const drafts = () =>
      Array.from({ length: entries }, () => draft('device.set', newId(), null, body));
    await new DeviceDaybook(db).append(() => ({ ok: true, drafts: drafts() }));
  }
  /** Takes what is not too much to get across; what is, is never heard of again. */
  function carrying(taken: number[], path: string, answer: (have: number) => object): typeof fetch {
    return ((address: string, { body }: RequestInit) => {
      if (!address.startsWith(path)) return Promise.resolve(Response.json(answer(taken.length)));
      const { entries } = JSON.parse(body as string) as { entries: Entry[] };
      if (entries.length > CARRIES) return Promise.reject(new Error('nothing came back'));
      for (const { seq } of entries) if (!taken.includes(seq)) taken.push(seq);
      return Promise.resolve(Response.json(answer(taken.length)));
    }) as typeof fetch;
  }

  it('gets a long day across all the same, each entry once', async () => {
    await written(60);
    const taken: number[] = [];
    const said = { refused: null, kept: [], held: [], now: Date.now() };
    const fetching = carrying(taken, '/api/sync/push', (have) => ({ have, ...said }));
    const transport = new Transport(TOKEN, fetching);
    let isAllSent!: () => void;
    const allSent = new Promise<void>((resolve) => (isAllSent = resolve));
    const runner: SyncRunner = new SyncRunner(db, transport, deviceId(1), (state) => {
      if (state.sent === 60) isAllSent();
      // The network is said to be back each time: how long is waited between is another matter.
      else if (state.doing === 'waiting') setImmediate(() => runner.hear({ type: 'wake', now: 0 }));
    });
    await runner.start();
    await allSent;
    runner.end();
    assert.deepEqual(
      taken,
      Array.from({ length: 60 }, (_, at) => at + 1),
    );
  });

  it('gets what a device that was shut out still had across as well', async () => {
    await written(40);
    const taken: number[] = [];
    const fetching = carrying(taken, '/api/sync/unsent', () => ({ done: true }));
    assert.equal(await handOver(db, new Transport(TOKEN, fetching)), 0);
    assert.equal(taken.length, 40);
  });

  it('enrols: a page that did not come is asked for again, and no page twice', async () => {
    mock.timers.enable({ apis: ['setTimeout'] });
    const asked: string[] = [];
    const begins = { position: 7, mark: '', received: {}, clock: { millis: 0, counter: 0 } };
    const first = { begins, rows: {}, next: { table: 'items', after: ['x'] } };
    const lost = new Set([1, 3, 4]);
    const fetching = ((address: string) => {
      if (address.startsWith('/api/enrol'))
        return Promise.resolve(Response.json({ business: BUSINESS, number: 2 }));
      asked.push(address.includes('from') ? 'second' : 'first');
      if (lost.has(asked.length)) return Promise.reject(new Error('lost'));
      const page = address.includes('from') ? { rows: {}, next: null } : first;
      return Promise.resolve(Response.json(page));
    }) as typeof fetch;
    const enrolling = enrol(db, 'ABCDE-FGHJK', 'Phone', (token) => new Transport(token, fetching));
    for (let turn = 0; turn < 6; turn += 1) {
      await settled();
      mock.timers.tick(4000);
    }
    mock.timers.reset();
    assert.equal((await enrolling).ok, true);
    assert.deepEqual(asked, ['first', 'first', 'second', 'second', 'second']);
    assert.equal((await db.read('standing'))?.position, 7);
  });
});

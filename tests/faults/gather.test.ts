import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { gather } from '../../src/service-worker/gather';

const ORIGIN = 'https://till.example';
const PARCELS = '/_app/parcels/one.json';
const PARTS = ['/_app/immutable/a.1.js', '/_app/immutable/b.2.js', '/', '/icon.svg'];

/** Keeps parts by their address, as the browser's own does. */
class PretendCache {
  readonly kept = new Map<string, string>();
  readonly types = new Map<string, string | null>();
  match = async (address: string): Promise<Response | undefined> => {
    const text = this.kept.get(address);
    return await Promise.resolve(text === undefined ? undefined : new Response(text));
  };
  put = async (address: string, response: Response): Promise<void> => {
    this.types.set(address, response.headers.get('content-type'));
    this.kept.set(address, await response.text());
  };
  keys = async (): Promise<Request[]> =>
    await Promise.resolve([...this.kept.keys()].map((address) => new Request(address)));
}

/** A server of which some answers get lost; says what it was asked for. */
function network(
  answers: (path: string, time: number) => Response | 'lost' = () => new Response('new'),
  parcels?: unknown,
) {
  const asked: string[] = [];
  const fetching = async ({ url }: Request): Promise<Response> => {
    const path = new URL(url).pathname;
    if (path === PARCELS && parcels === undefined) return new Response('', { status: 404 });
    asked.push(path);
    if (path === PARCELS) return Response.json(parcels);
    const answer = answers(path, asked.filter((each) => each === path).length);
    if (answer === 'lost') throw new TypeError('network');
    return await Promise.resolve(answer);
  };
  return { asked, fetching };
}

const NOTHING = { match: () => Promise.resolve(undefined) };
const pause = () => Promise.resolve();
const at = (path: string): string => `${ORIGIN}${path}`;

describe('the parts of a version', () => {
  it('all come, the pages first, though answers get lost on the way', async () => {
    const cache = new PretendCache();
    const { asked, fetching } = network((_path, time) => (time < 3 ? 'lost' : new Response('new')));
    await gather({
      parts: PARTS,
      parcels: PARCELS,
      cache,
      older: NOTHING,
      fetching,
      origin: ORIGIN,
      pause,
    });
    assert.deepEqual([...cache.kept.keys()].sort(), PARTS.map(at).sort());
    assert.deepEqual(new Set(asked.slice(0, 2)), new Set(['/', '/icon.svg']));
  });

  it('that came stay when others did not; the next time only those are asked for', async () => {
    const cache = new PretendCache();
    const bad = network((path) => (path.includes('b.2') ? 'lost' : new Response('new')));
    const gathering = {
      parts: PARTS,
      parcels: PARCELS,
      cache,
      older: NOTHING,
      origin: ORIGIN,
      pause,
    };
    await assert.rejects(gather({ ...gathering, fetching: bad.fetching }), /b\.2\.js: no answer/);
    assert.equal(cache.kept.size, 3);
    const good = network();
    await gather({ ...gathering, fetching: good.fetching });
    assert.deepEqual(good.asked, ['/_app/immutable/b.2.js']);
  });

  it('that end in the middle are asked for again, and one that is not there ends it', async () => {
    const cache = new PretendCache();
    const cut = (): Response =>
      new Response(new ReadableStream({ pull: (to) => to.error(new TypeError('cut off')) }));
    const { fetching } = network((path, time) =>
      path === '/'
        ? time === 1
          ? cut()
          : new Response('whole')
        : new Response('', { status: 404 }),
    );
    const gathering = {
      parts: ['/', '/gone'],
      parcels: PARCELS,
      cache,
      older: NOTHING,
      origin: ORIGIN,
      pause,
    };
    await assert.rejects(gather({ ...gathering, fetching }), /\/gone: 404/);
    assert.deepEqual([...cache.kept], [[at('/'), 'whole']]);
  });

  it('that never change are taken from an older version, and pages are not', async () => {
    const cache = new PretendCache();
    const older = new PretendCache();
    for (const part of ['/', '/_app/immutable/a.1.js']) older.kept.set(at(part), 'old');
    const { asked, fetching } = network();
    await gather({ parts: PARTS, parcels: PARCELS, cache, older, fetching, origin: ORIGIN, pause });
    assert.equal(cache.kept.get(at('/_app/immutable/a.1.js')), 'old');
    assert.equal(cache.kept.get(at('/')), 'new');
    assert.deepEqual(asked.sort(), ['/', '/_app/immutable/b.2.js', '/icon.svg']);
  });

  it('leave two of a browser’s six connections for sales', async () => {
    const cache = new PretendCache();
    let [under, most] = [0, 0];
    const fetching = async (): Promise<Response> => {
      under += 1;
      most = Math.max(most, under);
      await new Promise((resolve) => setTimeout(resolve, 1));
      under -= 1;
      return new Response('[]');
    };
    const parts = Array.from({ length: 20 }, (_, n) => `/page-${String(n)}`);
    await gather({ parts, parcels: PARCELS, cache, older: NOTHING, fetching, origin: ORIGIN });
    assert.equal(most, 4);
    assert.equal(cache.kept.size, 20);
  });

  it('that find no room say so at once', async () => {
    const cache = new PretendCache();
    cache.put = () => Promise.reject(new DOMException('full', 'QuotaExceededError'));
    const { asked, fetching } = network();
    const parts = Array.from({ length: 50 }, (_, n) => `/page-${String(n)}`);
    const gathering = {
      parts,
      parcels: PARCELS,
      cache,
      older: NOTHING,
      fetching,
      origin: ORIGIN,
      pause,
    };
    await assert.rejects(gather(gathering), /QuotaExceededError|full/);
    assert.ok(asked.length < 10, asked.join());
  });
});

describe('the parcels of a version', () => {
  const PAGES = '/_app/immutable/parcels/p.json';
  const SCRIPTS = '/_app/immutable/parcels/s.json';
  const scripts = ['a.1.js', 'b.2.js', 'c.3.css', 'd.4.js'].map(
    (name) => `/_app/immutable/${name}`,
  );
  const parts = ['/', '/stock', ...scripts, '/icon-192.png'];
  const list = [
    { address: PAGES, parts: ['/', '/stock'] },
    { address: SCRIPTS, parts: scripts },
  ];
  const packed = (paths: readonly string[], text = 'packed'): Response =>
    new Response(JSON.stringify(Object.fromEntries(paths.map((path) => [path, text]))), {
      headers: {
        'content-type': 'application/json',
        'content-length': '99',
        'cache-control': 'immutable',
        'x-frame-options': 'DENY',
      },
    });
  const answers = (path: string): Response =>
    path === PAGES
      ? packed(['/', '/stock'])
      : path === SCRIPTS
        ? packed(scripts)
        : new Response('new');
  const from = { parts, parcels: PARCELS, older: NOTHING, origin: ORIGIN, pause };

  it('bring many parts with one question, each as if it had come by itself', async () => {
    const cache = new PretendCache();
    const put: [string, Headers][] = [];
    const { asked, fetching } = network(answers, list);
    const noting = {
      keys: cache.keys,
      put: async (address: string, part: Response) => {
        put.push([new URL(address).pathname, part.headers]);
        await cache.put(address, part);
      },
    };
    await gather({ ...from, cache: noting, fetching });
    assert.deepEqual(asked, [PARCELS, PAGES, SCRIPTS, '/icon-192.png']);
    assert.deepEqual([...cache.kept.keys()].sort(), parts.map(at).sort());
    assert.equal(cache.types.get(at('/stock')), 'text/html; charset=utf-8');
    assert.equal(cache.types.get(at('/_app/immutable/c.3.css')), 'text/css; charset=utf-8');
    const headers = new Map(put).get('/')!;
    assert.equal(headers.get('x-frame-options'), 'DENY', 'what guards a page stays with it');
    assert.equal(headers.get('content-length'), null);
    assert.equal(headers.get('cache-control'), null);
  });

  it('are asked for again when lost or cut off, and those that came are not', async () => {
    const cache = new PretendCache();
    const bad = network((path, time) => {
      if (path !== SCRIPTS) return answers(path);
      return time === 1 ? 'lost' : new Response('{"/_app/immutable/a.1.js": "pac');
    }, list);
    await assert.rejects(gather({ ...from, cache, fetching: bad.fetching }), /s\.json: no answer/);
    assert.equal(cache.kept.size, 3);
    const good = network(answers, list);
    await gather({ ...from, cache, fetching: good.fetching });
    assert.deepEqual(good.asked, [PARCELS, SCRIPTS]);
    assert.equal(cache.kept.size, parts.length);
  });

  it('of which only one script is new are left: that one comes by itself; pages come together', async () => {
    const cache = new PretendCache();
    const older = new PretendCache();
    for (const part of [...scripts.slice(1), '/']) older.kept.set(at(part), 'old');
    const { asked, fetching } = network(answers, list);
    await gather({ ...from, cache, older, fetching });
    assert.deepEqual(asked, [PARCELS, PAGES, '/icon-192.png', scripts[0]]);
    assert.equal(cache.kept.get(at(scripts[1]!)), 'old');
    assert.equal(cache.kept.get(at('/')), 'packed');
  });

  it('of another version are not taken for those of this one', async () => {
    const gone = (path: string): Response =>
      path === '/icon-192.png' ? new Response('new') : new Response('', { status: 404 });
    const { fetching } = network(gone, list);
    const cache = new PretendCache();
    await assert.rejects(gather({ ...from, cache, fetching }), /p\.json: 404/);
    assert.deepEqual([...cache.kept.keys()], [at('/icon-192.png')]);
  });
});

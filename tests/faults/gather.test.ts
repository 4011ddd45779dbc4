import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { gather } from '../../src/service-worker/gather';

const ORIGIN = 'https://till.example';
const PARTS = ['/_app/immutable/a.1.js', '/_app/immutable/b.2.js', '/', '/icon.svg'];

/** Keeps parts by their address, as the browser's own does. */
class PretendCache {
  readonly kept = new Map<string, string>();
  match = async (address: string): Promise<Response | undefined> => {
    const text = this.kept.get(address);
    return await Promise.resolve(text === undefined ? undefined : new Response(text));
  };
  put = async (address: string, response: Response): Promise<void> => {
    this.kept.set(address, await response.text());
  };
  keys = async (): Promise<Request[]> =>
    await Promise.resolve([...this.kept.keys()].map((address) => new Request(address)));
}

/** A server of which some answers get lost; says what it was asked for. */
function network(
  answers: (path: string, time: number) => Response | 'lost' = () => new Response('new'),
) {
  const asked: string[] = [];
  const fetching = async ({ url }: Request): Promise<Response> => {
    const path = new URL(url).pathname;
    asked.push(path);
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
    await gather({ parts: PARTS, cache, older: NOTHING, fetching, origin: ORIGIN, pause });
    assert.deepEqual([...cache.kept.keys()].sort(), PARTS.map(at).sort());
    assert.deepEqual(new Set(asked.slice(0, 2)), new Set(['/', '/icon.svg']));
  });

  it('that came stay when others did not; the next time only those are asked for', async () => {
    const cache = new PretendCache();
    const bad = network((path) => (path.includes('b.2') ? 'lost' : new Response('new')));
    const gathering = { parts: PARTS, cache, older: NOTHING, origin: ORIGIN, pause };
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
    const gathering = { parts: ['/', '/gone'], cache, older: NOTHING, origin: ORIGIN, pause };
    await assert.rejects(gather({ ...gathering, fetching }), /\/gone: 404/);
    assert.deepEqual([...cache.kept], [[at('/'), 'whole']]);
  });

  it('that never change are taken from an older version, and pages are not', async () => {
    const cache = new PretendCache();
    const older = new PretendCache();
    for (const part of ['/', '/_app/immutable/a.1.js']) older.kept.set(at(part), 'old');
    const { asked, fetching } = network();
    await gather({ parts: PARTS, cache, older, fetching, origin: ORIGIN, pause });
    assert.equal(cache.kept.get(at('/_app/immutable/a.1.js')), 'old');
    assert.equal(cache.kept.get(at('/')), 'new');
    assert.deepEqual(asked.sort(), ['/', '/_app/immutable/b.2.js', '/icon.svg']);
  });

  it('that find no room say so at once', async () => {
    const cache = new PretendCache();
    cache.put = () => Promise.reject(new DOMException('full', 'QuotaExceededError'));
    const { asked, fetching } = network();
    const parts = Array.from({ length: 50 }, (_, n) => `/page-${String(n)}`);
    const gathering = { parts, cache, older: NOTHING, fetching, origin: ORIGIN, pause };
    await assert.rejects(gather(gathering), /QuotaExceededError|full/);
    assert.ok(asked.length < 10, asked.join());
  });
});

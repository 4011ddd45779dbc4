/** static/lost-parts.js by itself: when a page of which a part was lost is loaded again, and what it waits for. */
import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { describe, it } from 'node:test';
import { createContext, runInContext } from 'node:vm';

const SCRIPT = readFileSync(new URL('../../static/lost-parts.js', import.meta.url), 'utf8');
const turn = () => new Promise((resolve) => setImmediate(resolve));

interface World {
  /** What a tab keeps from one loading to the next; null where the browser keeps nothing. */
  readonly kept: Map<string, string> | null;
  now: number;
  isServerThere: boolean;
}

/** One loading of a page. Its time goes by in `passes`. */
function loading(world: World) {
  const timers: { readonly at: number; readonly call: () => void }[] = [];
  const heard = new Map<string, (event: object) => void>();
  const dataset: { begun?: string } = {};
  const said = { text: '', times: 0 };
  const page = { reloads: 0, said, dataset };
  const paragraph = {
    style: {},
    setAttribute: () => undefined,
    set textContent(text: string) {
      said.text = text;
    },
  };
  class Element {
    rel = '';
  }
  const storage = {
    getItem: (key: string) => world.kept!.get(key) ?? null,
    setItem: (key: string, value: string) => world.kept!.set(key, value),
  };
  const context = createContext({
    document: {
      documentElement: { dataset },
      body: { prepend: () => (said.times += 1) },
      getElementById: () => null,
      createElement: () => paragraph,
    },
    sessionStorage: storage,
    location: { reload: () => (page.reloads += 1) },
    addEventListener: (name: string, listener: (event: object) => void) =>
      heard.set(name, listener),
    setTimeout: (call: () => void, millis: number) => timers.push({ at: world.now + millis, call }),
    clearTimeout: () => undefined,
    fetch: () => (world.isServerThere ? Promise.resolve({}) : Promise.reject(new TypeError('no'))),
    Date: { now: () => world.now },
    AbortController,
    HTMLScriptElement: class extends Element {},
    HTMLLinkElement: class extends Element {},
    TypeError,
    Promise,
    Math,
  });
  runInContext(SCRIPT, context);
  return {
    page,
    context,
    hears: (name: string, event: object = {}) => heard.get(name)!(event),
    async passes(millis: number) {
      const until = world.now + millis;
      for (;;) {
        await turn();
        const next = timers.sort((a, b) => a.at - b.at).findIndex(({ at }) => at <= until);
        if (next < 0) break;
        const [timer] = timers.splice(next, 1);
        world.now = Math.max(world.now, timer!.at);
        timer!.call();
      }
      world.now = until;
    },
  };
}

/** Milliseconds from a loss until the page is loaded again, to the next half second. */
async function waitsFor(world: World): Promise<number> {
  const one = loading(world);
  one.hears('part-lost');
  for (let millis = 500; millis <= 120_000; millis += 500) {
    await one.passes(500);
    if (one.page.reloads > 0) return millis;
  }
  return Infinity;
}
const there = (): World => ({ kept: new Map(), now: 1_000_000, isServerThere: true });

describe('a page of which a part was lost', () => {
  it('is loaded again the later the more often it was in vain, up to a minute', async () => {
    const world = there();
    const waits: number[] = [];
    for (let time = 0; time < 8; time += 1) waits.push(await waitsFor(world));
    assert.deepEqual(waits, [1000, 2000, 4000, 8000, 16_000, 32_000, 60_000, 60_000]);
  });

  it('begins anew where the last loss is long ago', async () => {
    const world = there();
    await waitsFor(world);
    await waitsFor(world);
    world.now += 120_000;
    assert.equal(await waitsFor(world), 1000);
  });

  it('waits the longest where a tab keeps nothing, lest it goes round and round', async () => {
    assert.equal(await waitsFor({ ...there(), kept: null }), 60_000);
  });

  it('is not loaded until the server answers, and then once, however many parts were lost', async () => {
    const world = { ...there(), isServerThere: false };
    const one = loading(world);
    one.hears('part-lost');
    one.hears('part-lost');
    await one.passes(30_000);
    assert.equal(one.page.reloads, 0);
    assert.match(one.page.said.text, /^Waiting for the network/);
    world.isServerThere = true;
    await one.passes(2000);
    assert.equal(one.page.reloads, 1);
  });

  it('stays as it is where it began after all while that was waited for', async () => {
    const one = loading(there());
    const lost: unknown = runInContext('new TypeError("a script")', one.context);
    one.hears('unhandledrejection', { reason: lost });
    one.page.dataset.begun = 'yes';
    await one.passes(5000);
    assert.equal(one.page.reloads, 0);
  });

  it('is nothing to it once the application has begun, nor what the browser cannot read', async () => {
    const one = loading(there());
    one.hears('unhandledrejection', { reason: new SyntaxError('not read') });
    one.hears('error', { target: {} });
    one.page.dataset.begun = 'yes';
    one.hears('unhandledrejection', { reason: new TypeError('of a button') });
    await one.passes(120_000);
    assert.equal(one.page.reloads, 0);
    assert.equal(one.page.said.text, '');
  });
});

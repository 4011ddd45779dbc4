import assert from 'node:assert/strict';
import { setTimeout } from 'node:timers/promises';
import { describe, it } from 'node:test';
import { OneAfterAnother } from './one-after-another';

describe('statements that go one after another', () => {
  it('are sent in their order, each when the one before it is done', async () => {
    const seen: string[] = [];
    const all = new OneAfterAnother();
    for (const [at, takes] of [20, 5, 0].entries())
      all.add(async () => {
        seen.push(`begins ${String(at)}`);
        await setTimeout(takes);
        seen.push(`ends ${String(at)}`);
      });
    assert.deepEqual(seen, []);
    await all.end();
    assert.deepEqual(
      seen,
      [0, 1, 2].flatMap((at) => [`begins ${String(at)}`, `ends ${String(at)}`]),
    );
  });

  it('are not sent once one has failed, and that is what is heard of at the end', async () => {
    const seen: number[] = [];
    const all = new OneAfterAnother();
    all.add(() => Promise.resolve(void seen.push(1)));
    all.add(() => Promise.reject(new Error('refused')));
    all.add(() => Promise.resolve(void seen.push(3)));
    // Nobody waits for it yet, and nothing is said of an error that nobody has heard.
    await setTimeout(5);
    all.add(() => Promise.resolve(void seen.push(4)));
    await assert.rejects(all.end(), /refused/);
    assert.deepEqual(seen, [1]);
  });
});

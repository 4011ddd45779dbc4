import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { inTurn, TooBusyError } from './in-turn';

describe('the turn of a business', () => {
  it('comes one after another, and those of two businesses at the same time', async () => {
    const log: string[] = [];
    const open: (() => void)[] = [];
    const work = (name: string) => async (): Promise<void> => {
      log.push(`${name} begins`);
      await new Promise<void>((resolve) => open.push(resolve));
      log.push(`${name} ends`);
    };
    const all = [inTurn('a', work('a1')), inTurn('a', work('a2')), inTurn('b', work('b1'))];
    await new Promise((resolve) => setImmediate(resolve));
    assert.deepEqual(log, ['a1 begins', 'b1 begins']);
    while (log.length < 6) {
      open.shift()?.();
      await new Promise((resolve) => setImmediate(resolve));
    }
    await Promise.all(all);
    assert.ok(log.indexOf('a1 ends') < log.indexOf('a2 begins'));
  });

  it('comes also after one that failed', async () => {
    await assert.rejects(inTurn('c', () => Promise.reject(new Error('no'))));
    assert.equal(await inTurn('c', () => Promise.resolve(7)), 7);
  });

  it('is refused when too many wait, and given again once they are done', async () => {
    let open: () => void = () => undefined;
    const gate = new Promise<void>((resolve) => (open = resolve));
    const waiting = Array.from({ length: 30 }, () => inTurn('d', () => gate));
    await assert.rejects(
      inTurn('d', () => Promise.resolve()),
      TooBusyError,
    );
    open();
    await Promise.all(waiting);
    assert.equal(await inTurn('d', () => Promise.resolve(1)), 1);
  });
});

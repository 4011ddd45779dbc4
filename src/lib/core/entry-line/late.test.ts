import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { doLate, type Late, type Outcome } from './late';

/** Texts that end so, and keys in brackets. @returns What was done, in order, and what was not. */
async function entered(...all: readonly (readonly [string, Outcome?])[]) {
  const did: string[] = [];
  const waiting = all.map(([what, outcome = 'done']): Late => ({
    text: what.startsWith('[') ? null : what,
    does: async () => {
      await Promise.resolve();
      if (outcome !== 'not done') did.push(what);
      return outcome;
    },
  }));
  const left = await doLate(() => waiting.shift());
  return { did, left };
}

describe('what was entered before it could be understood', () => {
  it('is done in its order, each when the one before it is', async () => {
    const { did, left } = await entered(['rosemary'], ['2 viola'], ['[pay]'], ['sage']);
    assert.deepEqual(did, ['rosemary', '2 viola', '[pay]', 'sage']);
    assert.deepEqual(left, []);
  });

  it('goes on behind what asks first, but nothing is paid for', async () => {
    const { did, left } = await entered(['mug', 'asked'], ['rosemary'], ['[pay]']);
    assert.deepEqual(did, ['mug', 'rosemary']);
    assert.deepEqual(left, []);
  });

  it('leaves what was for the next slip, by name', async () => {
    const { did, left } = await entered(
      ['zebra', 'asked'],
      ['rosemary'],
      ['[pay]'],
      ['viola'],
      ['[pay]'],
      ['sage'],
    );
    assert.deepEqual(did, ['zebra', 'rosemary']);
    assert.deepEqual(left, ['viola', 'sage']);
  });

  it('names what is not done at all, and holds the keys behind it', async () => {
    const { did, left } = await entered(
      ['[pay]'],
      ['mug', 'asked'],
      ['jug', 'not done'],
      ['[pay]'],
    );
    assert.deepEqual(did, ['[pay]', 'mug']);
    assert.deepEqual(left, ['jug']);
  });

  it('takes what comes while it is being done', async () => {
    const waiting: Late[] = [];
    const did: string[] = [];
    const add = (text: string, then?: string): void => {
      waiting.push({
        text,
        does: () => {
          did.push(text);
          if (then !== undefined) add(then);
          return 'done';
        },
      });
    };
    add('rosemary', 'sage');
    assert.deepEqual(await doLate(() => waiting.shift()), []);
    assert.deepEqual(did, ['rosemary', 'sage']);
  });
});

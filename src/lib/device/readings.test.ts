import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Readings } from './readings';

const turn = () => new Promise<void>((resolve) => setImmediate(resolve));

describe('what a screen has to read', () => {
  function waiting(readings: Readings, taken = turn): () => Promise<boolean> {
    let isWhole = false;
    void readings.allRead(taken).then(() => (isWhole = true));
    return async () => {
      for (let time = 0; time < 5; time += 1) await turn();
      return isWhole;
    };
  }

  it('is waited for until the last of it was read, each counted once', async () => {
    const readings = new Readings();
    const [first, second] = [readings.begin(), readings.begin()];
    const isWhole = waiting(readings);
    first();
    first();
    assert.equal(await isWhole(), false);
    second();
    assert.equal(await isWhole(), true);
  });

  it('is also what begins only once something else was read', async () => {
    const readings = new Readings();
    const first = readings.begin();
    let second: (() => void) | undefined;
    const isWhole = waiting(readings, async () => {
      await turn();
      if (isFirstRead) second ??= readings.begin();
    });
    let isFirstRead = false;
    assert.equal(await isWhole(), false);
    isFirstRead = true;
    first();
    assert.equal(await isWhole(), false);
    second!();
    assert.equal(await isWhole(), true);
  });

  it('is nothing where nothing is read', async () => {
    assert.equal(await waiting(new Readings())(), true);
  });
});

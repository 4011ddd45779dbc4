import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { packedOf, type LineNow } from '../../core/stock/list-state';
import { Packing } from './packing';

const line = (packed: number, sent = 0): LineNow => ({
  ...{ item: 'fern', wanted: 8000, price: null, note: '', packed, sent, received: 0 },
});
/** What is written once it is let. */
function writing() {
  let end: (isWritten: boolean) => void = () => undefined;
  const done = new Promise<boolean>((resolve) => (end = resolve));
  return { write: () => done, end };
}
const make = (): Packing => new Packing(() => Promise.resolve());
const shown = (packing: Packing, row: LineNow): number => packedOf(packing.now(row));

describe('what was just put into a crate', () => {
  it('is shown at once, as not safe yet, and safe once it is written', async () => {
    const packing = make();
    const { write, end } = writing();
    const during = packing.during(line(1000), 1000, write);
    assert.equal(shown(packing, line(1000)), 2000);
    assert.equal(packing.isBeingWritten('fern'), true);
    end(true);
    await during;
    assert.equal(packing.isBeingWritten('fern'), false);
    // The rows say so before or after that; never twice.
    assert.equal(shown(packing, line(1000)), 2000);
    assert.equal(shown(packing, line(2000)), 2000);
  });
  it('is counted once when two taps come before the rows, and when another device packs meanwhile', async () => {
    const packing = make();
    const [first, second] = [writing(), writing()];
    const one = packing.during(line(0), 1000, first.write);
    const two = packing.during(line(0), 1000, second.write);
    assert.equal(shown(packing, line(0)), 2000);
    first.end(true);
    await one;
    // The first is in the rows, the second is not.
    assert.equal(shown(packing, line(1000)), 2000);
    assert.equal(packing.isBeingWritten('fern'), true);
    second.end(true);
    await two;
    assert.equal(shown(packing, line(3000)), 3000);
  });
  it('is shown no longer when it was refused or could not be written', async () => {
    const packing = make();
    await packing.during(line(1000), 1000, () => Promise.resolve(false));
    assert.equal(shown(packing, line(1000)), 1000);
    await assert.rejects(
      packing.during(line(1000), 1000, () => Promise.reject(new Error('no room'))),
      /no room/,
    );
    assert.equal(shown(packing, line(1000)), 1000);
    assert.equal(packing.isBeingWritten('fern'), false);
  });
  it('is taken out again at once, and never more than is in and has not left', async () => {
    const packing = make();
    const { write, end } = writing();
    const during = packing.during(line(3000, 2000), -2000, write);
    assert.equal(shown(packing, line(3000, 2000)), 2000);
    end(true);
    await during;
  });
});

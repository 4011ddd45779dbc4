import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import {
  MOST_POINTS,
  MOST_STROKES,
  mustSign,
  readSignature,
  SIGNATURE_BOX,
  signaturePath,
} from './signature';

describe('a signature', () => {
  it('is asked for above the limit, and never where there is none', () => {
    assert.equal(mustSign({ signAbove: 5000 }, 5000), false);
    assert.equal(mustSign({ signAbove: 5000 }, 5001), true);
    assert.equal(mustSign({ signAbove: 0 }, 1), true);
    assert.equal(mustSign({ signAbove: null }, 900_000), false);
  });

  it('is scaled to one box, whatever it was drawn on', () => {
    const read = readSignature(
      [
        [
          { x: 10, y: 20 },
          { x: 110, y: 70 },
        ],
      ],
      200,
    );
    assert.deepEqual(read, { ok: true, signature: [[50, 100, 550, 350]] });
  });

  it('is none when it is only a dot or a slip of the finger', () => {
    const refusal = { ok: false, refusal: { code: 'signature/too-little' } };
    assert.deepEqual(readSignature([], 400), refusal);
    assert.deepEqual(readSignature([[{ x: 10, y: 20 }]], 400), refusal);
    assert.deepEqual(
      readSignature(
        [
          [
            { x: 0, y: 0 },
            { x: 10, y: 0 },
          ],
        ],
        400,
      ),
      refusal,
    );
  });

  it('leaves out points that say nothing', () => {
    const points = Array.from({ length: 500 }, (_, x) => ({ x, y: 0 }));
    const read = readSignature([points], 1000);
    assert.ok(read.ok);
    assert.equal(read.signature[0]?.length, 2 * 125);
  });

  it('stays within the box and its bounds, whatever is drawn', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.array(fc.record({ x: fc.double({ noNaN: true }), y: fc.double({ noNaN: true }) }), {
            maxLength: 600,
          }),
          { maxLength: 80 },
        ),
        fc.integer({ min: 100, max: 2000 }),
        (drawn, width) => {
          const read = readSignature(drawn, width);
          if (!read.ok) return;
          assert.ok(read.signature.length <= MOST_STROKES);
          for (const stroke of read.signature) {
            assert.ok(stroke.length >= 2 && stroke.length <= MOST_POINTS * 2);
            stroke.forEach((value, at) => {
              const most = at % 2 === 0 ? SIGNATURE_BOX.width : SIGNATURE_BOX.height;
              assert.ok(Number.isInteger(value) && value >= 0 && value <= most);
            });
          }
        },
      ),
      { numRuns: 60 },
    ));

  it('is drawn again as it was', () =>
    assert.equal(
      signaturePath([
        [1, 2, 30, 40, 5, 6],
        [7, 8],
      ]),
      'M1 2L30 40 5 6M7 8h0',
    ));
});

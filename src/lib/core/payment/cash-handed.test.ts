import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { likelyCash, piecesOf } from './cash-handed';

describe('notes and coins', () => {
  it('gives 7.60 back in four pieces', () => {
    assert.deepEqual(piecesOf(760, 'GBP'), {
      pieces: [
        { value: 500, count: 1 },
        { value: 200, count: 1 },
        { value: 50, count: 1 },
        { value: 10, count: 1 },
      ],
      rest: 0,
    });
  });

  it('says what the smallest coin cannot make', () => {
    assert.equal(piecesOf(1003, 'CAD').rest, 3);
  });

  const likely = [
    { due: 1950, currency: 'GBP', is: [2000, 5000] },
    { due: 5880, currency: 'GBP', is: [6000, 7000, 8000, 10000] },
    { due: 1240, currency: 'GBP', is: [1500, 2000, 5000] },
    { due: 320, currency: 'GBP', is: [500, 1000, 2000, 5000] },
    { due: 1240, currency: 'USD', is: [1500, 2000, 5000, 10000] },
    { due: 5000, currency: 'GBP', is: [6000] },
    { due: 0, currency: 'GBP', is: [] },
  ];
  for (const { due, currency, is } of likely) {
    it(`suggests ${is.join(', ') || 'nothing'} for ${due} ${currency}`, () =>
      assert.deepEqual(likelyCash(due, currency), is));
  }

  it('always covers what is due, and makes the change to the last coin', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 500_000 }),
        fc.constantFrom('GBP', 'USD', 'JPY'),
        (due, currency) => {
          for (const handed of likelyCash(due, currency)) {
            assert.ok(handed > due);
            const { pieces, rest } = piecesOf(handed - due, currency);
            assert.equal(
              pieces.reduce((all, { value, count }) => all + value * count, rest),
              handed - due,
            );
            assert.equal(rest, 0);
          }
        },
      ),
    );
  });
});

import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { fraction } from './fraction';
import { shareByValues, shareByWeights, UnusableWeightsError } from './apportion';

describe('sharing an amount over weights', () => {
  const rules = [
    {
      rule: 'equal weights: spare pennies go to the first',
      of: 100,
      by: [1, 1, 1],
      is: [34, 33, 33],
    },
    { rule: 'a weight of nothing gets nothing', of: 5, by: [0, 1], is: [0, 5] },
    { rule: 'the largest remainder gets the penny', of: 10, by: [1, 2, 3], is: [2, 3, 5] },
    { rule: 'an amount below zero is shared too', of: -100, by: [1, 1, 1], is: [-33, -33, -34] },
  ];
  for (const { rule, of, by, is } of rules) {
    it(rule, () => assert.deepEqual(shareByWeights(of, by), is));
  }

  it('takes what is too much from the smallest fractions, the earlier first', () => {
    const values = [fraction(21, 2), fraction(21, 2), fraction(10)];
    assert.deepEqual(shareByValues(28, values), [9, 10, 9]);
  });

  it('goes round again when more is missing than there are parts', () => {
    assert.deepEqual(shareByValues(7, [fraction(0), fraction(1, 2)]), [3, 4]);
  });

  it('never makes or loses a penny', () => {
    const weights = fc.array(fc.nat({ max: 1_000_000 }), { minLength: 1, maxLength: 20 });
    fc.assert(
      fc.property(fc.integer({ min: -10_000_000, max: 10_000_000 }), weights, (amount, by) => {
        fc.pre(by.some((w) => w > 0));
        const parts = shareByWeights(amount, by);
        assert.equal(
          parts.reduce((a, b) => a + b, 0),
          amount,
        );
        const all = by.reduce((a, b) => a + b, 0);
        parts.forEach((part, i) => assert.ok(Math.abs(part - (amount * by[i]!) / all) < 1));
      }),
    );
  });

  for (const by of [[], [0, 0], [1, -1]]) {
    it(`refuses the weights [${by.join(', ')}]`, () =>
      assert.throws(() => shareByWeights(10, by), UnusableWeightsError));
  }
});

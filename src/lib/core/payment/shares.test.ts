import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { leftOfShares, sharedByAmounts, sharedByLines, sharedEqually } from './shares';
import { tipBase, tipOf } from './tip';
import type { QuotedLine } from '../pricing/slip';

const line = (total: number): QuotedLine => ({
  gross: total,
  lineDiscount: 0,
  standingDiscount: 0,
  wholeDiscount: 0,
  net: total,
  tax: {},
  total,
});
const amounts = (outcome: ReturnType<typeof sharedEqually>): readonly number[] | string =>
  outcome.ok ? outcome.shares.map(({ amount }) => amount) : outcome.refusal.code;

describe('sharing a slip out', () => {
  it('equally: the odd pennies go to the first', () =>
    assert.deepEqual(amounts(sharedEqually(1000, 3)), [334, 333, 333]));
  it('between one is no sharing', () =>
    assert.equal(amounts(sharedEqually(1000, 1)), 'share/too-few'));

  it('by amounts that make the total', () =>
    assert.deepEqual(amounts(sharedByAmounts(1000, [400, 600])), [400, 600]));
  it('says what the amounts leave', () => {
    assert.deepEqual(sharedByAmounts(1000, [400, 500]), {
      ok: false,
      refusal: { code: 'share/not-the-total', left: 100 },
    });
  });
  it('wants something of everybody', () =>
    assert.equal(amounts(sharedByAmounts(1000, [1000, 0])), 'share/not-an-amount'));

  it('by line: their own, and of what is for all in proportion to it', () => {
    const quote = { lines: [line(600), line(300), line(90)], total: 990 };
    assert.deepEqual(amounts(sharedByLines(quote, [0, 1, null], 2)), [660, 330]);
  });
  it('by line, with nothing of their own: equally', () =>
    assert.deepEqual(
      amounts(sharedByLines({ lines: [line(101)], total: 101 }, [null], 2)),
      [51, 50],
    ));
  it('by line, somebody had nothing', () =>
    assert.equal(
      amounts(sharedByLines({ lines: [line(101)], total: 101 }, [0], 2)),
      'share/not-an-amount',
    ));

  it('always sums to the total', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 9999 }), fc.option(fc.nat({ max: 4 }))), {
          minLength: 1,
        }),
        fc.nat({ max: 500 }),
        fc.integer({ min: 2, max: 5 }),
        (lines, service, people) => {
          const quoted = lines.map(([total]) => line(total));
          const total = lines.reduce((all, [each]) => all + each, 0) + service;
          const shared = sharedByLines(
            { lines: quoted, total },
            lines.map(([, person]) => (person !== null && person < people ? person : null)),
            people,
          );
          if (!shared.ok) return;
          assert.equal(
            shared.shares.reduce((all, { amount }) => all + amount, 0),
            total,
          );
        },
      ),
    );
  });

  it('knows what is left of each', () => {
    const shares = [
      { name: '1', amount: 500 },
      { name: '2', amount: 500 },
    ];
    const paid = [
      { share: 1, clears: 200 },
      { share: 1, clears: 300 },
      { share: null, clears: 9 },
    ];
    assert.deepEqual(leftOfShares(shares, paid), [0, 500]);
  });
});

describe('a tip', () => {
  it('is a rounded percentage of the total', () => assert.equal(tipOf(2645, '12.5'), 331));
  it('or of what is left without tax', () => {
    const quote = { total: 1200, taxes: [{ id: 'a', base: 1000, amount: 200 }] };
    assert.deepEqual([tipBase(quote, 'total'), tipBase(quote, 'net')], [1200, 1000]);
  });
});

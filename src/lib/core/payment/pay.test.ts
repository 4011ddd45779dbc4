import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { pay, type Payment, type WayRules } from './pay';

interface Case {
  readonly about: string;
  readonly payment: Payment;
  readonly expect: unknown;
}
const cases = JSON.parse(
  readFileSync(new URL('./payments.examples.json', import.meta.url), 'utf8'),
) as readonly Case[];

const cash: WayRules = { id: 'cash', side: 'cash', change: true };
const card: WayRules = { id: 'card', side: 'card' };
const amounts = fc.integer({ min: 1, max: 1_000_000 });

describe('taking payment in parts', () => {
  for (const { about, payment, expect } of cases) {
    it(about, () => assert.deepEqual(pay(payment), expect));
  }

  it('charges exactly the card total when all of it goes on cards', () => {
    fc.assert(
      fc.property(
        amounts,
        amounts,
        fc.array(amounts, { maxLength: 6 }),
        (cashTotal, cardTotal, asks) => {
          let left = cashTotal;
          const parts: { way: string; clears: number }[] = [];
          for (const ask of asks) {
            if (ask >= left) break;
            parts.push({ way: 'card', clears: ask });
            left -= ask;
          }
          parts.push({ way: 'card', clears: left });
          const taken = pay({ cashTotal, cardTotal, ways: [cash, card], parts });
          assert.ok('parts' in taken);
          assert.equal(taken.left, 0);
          assert.equal(
            taken.parts.reduce((all, part) => all + part.charge, 0),
            cardTotal,
          );
        },
      ),
    );
  });

  it('never gives back more than was handed over, and what stays is what was owed', () => {
    const step = fc.constantFrom(1, 5, 10);
    fc.assert(
      fc.property(amounts, amounts, step, (cashTotal, gives, cashStep) => {
        const parts = [{ way: 'cash', gives }];
        const taken = pay({ cashTotal, cardTotal: cashTotal, cashStep, ways: [cash], parts });
        assert.ok('parts' in taken);
        const [part] = taken.parts;
        assert.ok(part !== undefined && taken.change <= gives);
        assert.equal(gives - taken.change, part.clears + taken.rounding);
        assert.equal(part.clears + taken.left, cashTotal);
      }),
    );
  });

  for (const gives of [0, -5, 1.5, Number.NaN]) {
    it(`refuses ${gives} as an amount`, () => {
      const refused = pay({
        cashTotal: 100,
        cardTotal: 100,
        ways: [cash],
        parts: [{ way: 'cash', gives }],
      });
      assert.deepEqual(refused, { error: 'not an amount above zero', at: 0 });
    });
  }
});

/** What settling works out, beyond the worked examples that formats/sums.test.ts runs. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { makersShares, sellersCommission } from './makers-share';
import { settleCards } from './cards';
import type { SettlingRows } from './rows';
import { matchCards, type CardPayment, type ReportLine } from './match-cards';
import { loweredBy } from '../points/lowered';
import { NobodyOnDutyError, shareTips, TIP_SHARES } from './share-tips';
import { wageOf } from './wages';

const sumOf = (all: readonly number[]): number => all.reduce((a, b) => a + b, 0);

describe('tips', () => {
  it('are all given out, however they are shared', () => {
    const weights = fc.array(fc.nat({ max: 900 }), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(fc.constantFrom(...TIP_SHARES), fc.nat(99_999), weights, (how, tips, by) => {
        if (how !== 'equally' && sumOf(by) === 0) return;
        const shares = shareTips(how, tips, by);
        assert.equal(sumOf(shares), tips);
        assert.equal(shares.length, by.length);
        if (how !== 'equally') shares.forEach((each, at) => assert.ok(by[at] !== 0 || each === 0));
      }),
    );
  });

  it('cannot be given to nobody, and none are owed where there are none', () => {
    assert.throws(() => shareTips('hours', 500, [0, 0]), NobodyOnDutyError);
    assert.throws(() => shareTips('equally', 500, []), NobodyOnDutyError);
    assert.deepEqual(shareTips('hours', 0, [0, 0]), [0, 0]);
  });
});

describe('makers', () => {
  it('are owed nothing for what has come back', () => {
    const line = fc.record({
      maker: fc.constantFrom('a', 'b'),
      net: fc.integer({ min: -9999, max: 9999 }),
    });
    fc.assert(
      fc.property(fc.array(line, { maxLength: 20 }), (lines) => {
        const back = lines.map(({ maker, net }) => ({ maker, net: -net }));
        const shares = makersShares([...lines, ...back], { a: '33.3333', b: '15.5' });
        for (const { sold, commission, toPay } of Object.values(shares))
          assert.deepEqual([sold + 0, commission + 0, toPay + 0], [0, 0, 0]);
      }),
    );
  });

  it('named like what every object has are makers like others', () => {
    assert.throws(
      () => makersShares([{ maker: 'toString', net: 5 }], {}),
      /no commission is known/,
    );
  });
});

describe('a seller’s commission', () => {
  it('is of all their lines together, returns counted off', () =>
    assert.equal(sellersCommission([333, 333, -33], '7.5'), 47));
});

describe('wages', () => {
  it('of a whole hour are the rate', () => assert.equal(wageOf(60, 1144), 1144));
});

describe('taxes that promotions lower', () => {
  it('are nothing once all is cleared by them', () => {
    const taxes = [{ id: 't', amount: 333, base: 1667 }];
    const parts = fc.array(fc.integer({ min: 1, max: 700 }), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(parts, (cleared) => {
        const lowered = loweredBy(sumOf(cleared), taxes, cleared);
        assert.equal(sumOf(lowered.map(([tax]) => tax!.amount)), 333);
        assert.equal(sumOf(lowered.map(([tax]) => tax!.base)), 1667);
      }),
    );
  });
});

describe('matching cards', () => {
  const at = (minute: number): string => new Date(Date.UTC(2026, 9, 29, 9, minute)).toISOString();
  const payment = fc.record({
    amount: fc.constantFrom(450, 650, 1300),
    last4: fc.constantFrom('4242', '0005'),
    minute: fc.nat(240),
  });
  /** What may go wrong with a line of the report. */
  const fault = fc.constantFrom('none', 'none', 'none', 'lost', 'double', 'amount', 'reference');

  it('accounts for every line and every payment once, and names each fault', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(payment, fault), { maxLength: 30 }), (all) => {
        const payments: CardPayment[] = all.map(([{ amount, last4, minute }], n) => ({
          ...{ id: `p${String(n)}`, reference: `r${String(n)}` },
          ...{ amount, last4, at: at(minute) },
        }));
        const report: ReportLine[] = all.flatMap(([{ amount, last4, minute }, wrong], n) => {
          const line = { line: 0, reference: `r${String(n)}`, amount, last4, at: at(minute) };
          if (wrong === 'lost') return [];
          if (wrong === 'double') return [line, line];
          if (wrong === 'amount') return [{ ...line, amount: amount + 50 }];
          return wrong === 'reference' ? [{ ...line, reference: `x${String(n)}` }] : [line];
        });
        const lines = report.map((line, n) => ({ ...line, line: n + 1 }));
        const { pairs, double, unknown, missing } = matchCards(payments, lines);
        const seen = [
          ...pairs.map(({ line }) => line),
          ...double,
          ...unknown.map(({ line }) => line),
        ];
        assert.deepEqual(
          seen.toSorted((a, b) => a - b),
          lines.map(({ line }) => line),
        );
        assert.deepEqual(
          [...pairs.map(({ payment: id }) => id), ...missing].toSorted(),
          payments.map(({ id }) => id).toSorted(),
        );
        const named = (wrong: string): string[] =>
          all.flatMap(([, each], n) => (each === wrong ? `p${String(n)}` : []));
        assert.equal(double.length, named('double').length);
        assert.deepEqual(
          pairs
            .filter(({ difference }) => difference === 50)
            .map((each) => each.payment)
            .toSorted(),
          named('amount').toSorted(),
        );
        for (const id of named('lost'))
          assert.ok(
            missing.includes(id) ||
              pairs.some(({ payment: paid, by }) => paid === id && by === 'likeness'),
          );
        for (const { by, line, payment: id } of pairs) {
          const { n } = { n: Number(id.slice(1)) };
          if (by === 'reference') assert.equal(lines[line - 1]!.reference, `r${String(n)}`);
        }
      }),
    );
  });

  it('pairs none by likeness where two are alike, and names both', () => {
    const like = { amount: 450, last4: '4242' };
    const payments = [
      { id: 'a', reference: 'ra', ...like, at: at(5) },
      { id: 'b', reference: 'rb', ...like, at: at(3) },
    ];
    const { pairs, unknown } = matchCards(payments, [
      { line: 1, reference: '', ...like, at: at(4) },
    ]);
    assert.deepEqual(pairs, []);
    assert.deepEqual(unknown, [{ line: 1, candidates: ['a', 'b'] }]);
  });

  it('takes the first of two payments that claim one reference', () => {
    const like = { reference: 'r', amount: 450, last4: '4242', at: at(5) };
    const { pairs, missing } = matchCards(
      [
        { id: 'a', ...like },
        { id: 'b', ...like },
      ],
      [{ line: 1, ...like }],
    );
    assert.deepEqual([pairs.map(({ payment: id }) => id), missing], [['a'], ['b']]);
  });
});

describe('what went onto a card that had paid for nothing', () => {
  const amounts = { fee: 0, payout: 'PO-1', payoutDay: '2026-11-23' };
  const line = (id: string, reference: string, amount: number): SettlingRows['lines'][number] =>
    ({
      ...{ id, reference, amount, ...amounts, sort: 'refund', source: 'acquirer', scheme: 'Visa' },
      ...{ last4: '4471', paidAt: '2026-11-22T10:00:00.000Z', day: '2026-11-22', at: '', by: null },
    }) as unknown as SettlingRows['lines'][number];
  const refund = (id: string, amount: number, state: 'refunded' | 'refused') =>
    ({ id, payment: id, way: 'reader', amount, state }) as SettlingRows['refunds'][number];
  const settled = (refunds: SettlingRows['refunds'], lines: SettlingRows['lines']) =>
    settleCards({ cards: [], joins: [], came: [], refunds, lines } as unknown as SettlingRows);

  it('is in the report under its own name, once, and lowers what is paid out of its way', () => {
    const { odd, back, payouts } = settled([refund('r', 500, 'refunded')], [line('l', 'r', -500)]);
    assert.deepEqual([odd, back], [[], -500]);
    assert.deepEqual(payouts[0]?.ways, [{ way: 'reader', amount: -500 }]);
  });

  it('is odd where it is there twice, is of another amount, or was refused', () => {
    const twice = [line('l', 'r', -500), line('m', 'r', -500)];
    assert.equal(settled([refund('r', 500, 'refunded')], twice).odd.length, 1);
    assert.equal(settled([refund('r', 400, 'refunded')], [line('l', 'r', -500)]).odd.length, 1);
    assert.equal(settled([refund('r', 500, 'refused')], [line('l', 'r', -500)]).odd.length, 1);
  });
});

import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { sum } from '../money/units';
import { heldMove, openItems, salesByDoc, statementOf, type HeldMove } from './statement';

const dayOf = (at: string): string => at.slice(0, 10);
const move = (n: number, day: string, amount: number): HeldMove => ({
  ...{ id: `m${String(n)}`, account: 'customer:x', at: `${day}T10:00:00.000Z`, amount },
  ...{ kind: amount > 0 ? 'payment.taken' : 'sale.rung', sale: `s${String(n)}` },
  number: `D1-${String(n)}`,
  pays: null,
  invoice: '',
});
const moves = [
  move(1, '2026-10-01', 1000),
  move(2, '2026-10-20', 500),
  move(3, '2026-11-02', -1200),
  move(4, '2026-11-20', 700),
];

describe('a statement of account', () => {
  it('begins with what stood before its first day, and ends with what stood after its last', () => {
    const { opening, lines, closing } = statementOf(moves, 1000, '2026-10-10', '2026-11-10', dayOf);
    assert.deepEqual([opening, closing], [1000, 300]);
    assert.deepEqual(
      lines.map(({ number, balance }) => [number, balance]),
      [
        ['D1-2', 1500],
        ['D1-3', 300],
      ],
    );
  });

  it('has what is from before what this device keeps in its opening', () => {
    const { opening, closing } = statementOf(moves.slice(2), 1000, '', '', dayOf);
    assert.deepEqual([opening, closing], [1500, 1000]);
  });

  it('says what is still to pay, the oldest paid first, with the day it is due', () => {
    assert.deepEqual(
      openItems(moves, 1000, 14, '2026-11-28', dayOf).map(({ number, left, due, isOverdue }) => [
        ...[number, left, due, isOverdue],
      ]),
      [
        ['D1-2', 300, '2026-11-03', true],
        ['D1-4', 700, '2026-12-04', false],
      ],
    );
    const old = openItems(moves.slice(2), 1000, 14, '2026-11-28', dayOf);
    assert.deepEqual(
      old.map(({ number, left }) => [number, left]),
      [
        ['', 300],
        ['D1-4', 700],
      ],
    );
  });

  it('has open what is owed, to the minor unit, however it was paid', () => {
    const amounts = fc.array(fc.integer({ min: -500, max: 500 }).filter((amount) => amount !== 0));
    fc.assert(
      fc.property(amounts, fc.nat({ max: 10 }), (all, known) => {
        const some = all.map((amount, n) => move(n, `2026-10-${String(10 + (n % 20))}`, amount));
        const owes = sum(all);
        const open = openItems(
          some.slice(Math.min(known, some.length)),
          owes,
          0,
          '2026-11-01',
          dayOf,
        );
        assert.equal(sum(open.map(({ left }) => left)), Math.max(0, owes));
      }),
    );
  });

  it('pays a debt that was chosen first, and what comes off a sale pays that sale', () => {
    const paid = (n: number, amount: number, pays: string): HeldMove => ({
      ...move(n, '2026-11-05', amount),
      pays,
    });
    const left = (all: readonly HeldMove[]): (readonly [string, number])[] =>
      openItems(all, sum(all.map(({ amount }) => amount)), 14, '2026-11-22', dayOf).map(
        (item) => [item.number, item.left] as const,
      );
    const debts = [move(1, '2026-10-01', 1000), move(2, '2026-10-20', 500)];
    assert.deepEqual(left([...debts, paid(3, -400, 's2')]), [
      ['D1-1', 1000],
      ['D1-2', 100],
    ]);
    // What is more than that one pays the oldest.
    assert.deepEqual(left([...debts, paid(3, -700, 's2')]), [['D1-1', 800]]);
    const back: HeldMove = { ...move(2, '2026-11-06', -500), id: 'back', kind: 'return.made' };
    assert.deepEqual(left([...debts, back]), [['D1-1', 1000]]);
    // Of a sale that nobody owes for, it pays the oldest.
    assert.deepEqual(left([...debts, paid(3, -100, 'elsewhere')]), [
      ['D1-1', 900],
      ['D1-2', 500],
    ]);
  });

  it('is one debt for each document, whatever parts it was put on account in', () => {
    const part: HeldMove = { ...move(1, '2026-10-01', 300), id: 'part' };
    const all = [move(1, '2026-10-01', 1000), move(2, '2026-10-02', 500), part];
    const open = openItems(all, 1700, 14, '2026-11-22', dayOf);
    assert.deepEqual(
      open.map(({ number, amount, left }) => [number, amount, left]),
      [
        ['D1-1', 1300, 1200],
        ['D1-2', 500, 500],
      ],
    );
  });

  it('names the sale of a part by its slip', () => {
    const row = {
      ...{ id: 'm', account: 'customer:x', at: '', amount: 5, doc: 'slip' },
      kind: 'payment.taken' as const,
      docIs: 'slip' as const,
      pays: null,
    };
    const sale = { id: 's', slip: 'slip', number: 'D1-9' };
    assert.equal(heldMove(row, salesByDoc([sale])).number, 'D1-9');
    assert.equal(heldMove(row, salesByDoc([])).sale, '');
  });
});

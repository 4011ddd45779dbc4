import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { idOf } from '../testing/made-up-business';
import type { SettleOutcome } from './kept-entry';
import { settleSeen, soldTwice } from './sold-twice';

const sale = (n: number, slip: number, minute: number) => ({
  id: idOf(80, n),
  slip: idOf(81, slip),
  number: `D1-${String(n)}`,
  at: `2026-11-22T10:${String(minute).padStart(2, '0')}:00.000Z`,
  total: 1900,
  by: null,
});

describe('a slip that was rung up twice', () => {
  const sales = [sale(3, 2, 30), sale(1, 1, 5), sale(2, 1, 2), sale(4, 2, 31), sale(5, 3, 9)];
  it('is found with its sales in their order, the latest first, whatever order they came in', () => {
    const numbers = soldTwice(sales, []).map((each) => each.sales.map(({ number }) => number));
    assert.deepEqual(numbers, [
      ['D1-3', 'D1-4'],
      ['D1-2', 'D1-1'],
    ]);
    assert.deepEqual(soldTwice([...sales].reverse(), []), soldTwice(sales, []));
  });
  it('is settled once, with a reason, and is a loose end no more', () => {
    const writer = new DeviceWriter(1);
    const [first] = soldTwice(sales, []);
    const settle = (reason: string, settlements: { looseEnd: string }[] = []) =>
      settleSeen(writer.newId, first!.looseEnd, reason, settlements);
    const outcome = settle('paid twice, gave one back');
    assert.ok(outcome.ok);
    for (const entry of writer.append(outcome.drafts, 0)) assert.ok(readEntry(entry).ok);
    const settled = [{ looseEnd: first!.looseEnd }];
    assert.equal(soldTwice(sales, settled).length, 1);
    const code = (each: SettleOutcome) => (each.ok ? null : each.refusal.code);
    assert.deepEqual(
      [code(settle(' ')), code(settle('again', settled))],
      ['looseEnd/no-reason', 'looseEnd/settled'],
    );
  });
});

import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { KeptLine, Row } from '../books/tables';
import { emptySlip, type OpenLine, type OpenSlip } from '../slip/open-slip';
import { idOf } from '../testing/made-up-business';
import { asTaken, joinLines } from './join-lines';

const SLIP = idOf(61, 1);
const line = (quantity: number, more: Partial<KeptLine> = {}): KeptLine => ({
  item: idOf(6, 1),
  name: 'Lavender',
  detail: '',
  unit: '',
  decimals: 0,
  price: 450,
  quantity: quantity * 1000,
  taxes: [],
  cost: null,
  isStocked: true,
  ...more,
});
const row = (n: number, stamp: string, on: KeptLine | null): Row<'slipLines'> => ({
  id: idOf(60, n),
  slip: SLIP,
  person: '',
  line: on,
  setStamp: stamp,
});
const taken = (rows: readonly Row<'slipLines'>[]): OpenSlip => ({
  ...emptySlip(SLIP),
  lines: rows.flatMap(({ id, line: on }): OpenLine[] => (on === null ? [] : [{ ...on, key: id }])),
  kept: { sort: 'tab', name: 'Bench' },
  asTakenUp: asTaken(rows),
});
const on = (slip: OpenSlip): Record<string, number> =>
  Object.fromEntries(slip.lines.map(({ key, quantity }) => [key.slice(-1), quantity / 1000]));
const withQuantity = (slip: OpenSlip, n: number, quantity: number): OpenSlip => ({
  ...slip,
  lines:
    quantity === 0
      ? slip.lines.filter(({ key }) => key !== idOf(60, n))
      : slip.lines.map((each) =>
          each.key === idOf(60, n) ? { ...each, quantity: quantity * 1000 } : each,
        ),
});

describe('what others did to a slip while it was in hand', () => {
  const start = [row(1, 'a', line(2)), row(2, 'a', line(1))];
  const cases: readonly {
    about: string;
    here: (slip: OpenSlip) => OpenSlip;
    there: readonly Row<'slipLines'>[];
    is: Record<string, number>;
    names: number;
  }[] = [
    { about: 'nothing', here: (s) => s, there: start, is: { 1: 2, 2: 1 }, names: 0 },
    {
      about: 'a new line',
      here: (s) => s,
      there: [...start, row(3, 'b', line(4))],
      is: { 1: 2, 2: 1, 3: 4 },
      names: 1,
    },
    {
      about: 'a line that is off there, untouched here',
      here: (s) => s,
      there: [start[0]!, row(2, 'b', null)],
      is: { 1: 2 },
      names: 1,
    },
    {
      about: 'both added to one',
      here: (s) => withQuantity(s, 1, 3),
      there: [row(1, 'b', line(5)), start[1]!],
      is: { 1: 6, 2: 1 },
      names: 1,
    },
    {
      about: 'off here, more there: what they added stays',
      here: (s) => withQuantity(s, 1, 0),
      there: [row(1, 'b', line(5)), start[1]!],
      is: { 2: 1, 1: 3 },
      names: 1,
    },
    {
      about: 'more here, off there: what was added here stays',
      here: (s) => withQuantity(s, 1, 3),
      there: [row(1, 'b', null), start[1]!],
      is: { 1: 1, 2: 1 },
      names: 1,
    },
    {
      about: 'the same written again',
      here: (s) => withQuantity(s, 1, 3),
      there: [row(1, 'b', line(2)), start[1]!],
      is: { 1: 3, 2: 1 },
      names: 0,
    },
  ];
  for (const { about, here, there, is, names } of cases)
    it(about, () => {
      const joined = joinLines(here(taken(start)), there);
      assert.deepEqual([on(joined.slip), joined.names.length], [is, names]);
      // Once joined, it is known.
      assert.deepEqual(joinLines(joined.slip, there).names, []);
    });

  it('keeps a changed price or note of here, and of there where here is as it was', () => {
    const noted = { ...line(2), note: 'by the gate' };
    const there = [row(1, 'b', noted), start[1]!];
    assert.equal(joinLines(taken(start), there).slip.lines[0]?.note, 'by the gate');
    const mine = taken(start);
    const priced = {
      ...mine,
      lines: mine.lines.map((each) => ({ ...each, price: 300, listPrice: 450 })),
    };
    assert.equal(joinLines(priced, there).slip.lines[0]?.price, 300);
  });

  it('adds up, whatever both do', () => {
    const many = fc.nat({ max: 5 });
    fc.assert(
      fc.property(many, many, many, (before, here, there) => {
        fc.pre(before > 0);
        const rows = [row(1, 'a', line(before))];
        const mine = withQuantity(taken(rows), 1, here);
        const theirs = there === 0 ? null : line(there);
        const { slip } = joinLines(mine, [row(1, 'b', theirs)]);
        assert.equal(on(slip)['1'] ?? 0, Math.max(0, here + there - before));
      }),
    );
  });
});

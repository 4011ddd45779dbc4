import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Row } from '../books/tables';
import { pay } from '../payment/pay';
import { CASH_WAY, rulesOf } from '../payment/ways';
import { idOf } from '../testing/made-up-business';
import { countDrawer, openDrawer, type CountDrawer, type DrawerOutcome } from './commands';
import { expectedCash } from './expected-cash';

const drawer: Row<'drawers'> = {
  id: idOf(4, 1),
  event: idOf(2, 1),
  device: idOf(5, 1),
  by: null,
  at: '2026-11-22T08:30:00.000Z',
  name: 'Drawer 1',
  float: 8000,
  counts: [],
};
const between = { movedIn: 0, movedOut: 0, late: 0 };
const sums = {
  ...{ drawer: drawer.id, parts: 2, handed: 3000, change: 760, rounding: 0, back: 0 },
  ...between,
};
let ids = 0;
const command: CountDrawer = {
  newId: () => idOf(8, (ids += 1)),
  drawer,
  sums,
  counts: [
    { value: 2000, count: 5 },
    { value: 20, count: 12 },
  ],
  reason: '',
  number: 1,
  reads: [],
  othersAreOpen: false,
};
const count = (change: Partial<CountDrawer>): DrawerOutcome =>
  countDrawer({ ...command, ...change });
const code = (outcome: DrawerOutcome): string => (outcome.ok ? 'done' : outcome.refusal.code);

describe('a drawer', () => {
  it('should hold the float and what was handed over, less the change', () => {
    assert.equal(expectedCash(drawer, sums), 10_240);
    assert.equal(expectedCash(drawer, undefined), 8000);
  });

  it('holds exactly what the payments left in it, cash rounding included', () => {
    const owed = fc.integer({ min: 1, max: 99_999 });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(owed, fc.nat({ max: 50 }), fc.constantFrom(1, 5, 10))),
        (sales) => {
          let tin = drawer.float;
          const taken = { handed: 0, change: 0 };
          for (const [cashTotal, notes, cashStep] of sales) {
            const gives = Math.ceil(cashTotal / 1000) * 1000 + notes * 1000;
            const paid = pay({
              cashTotal,
              cardTotal: cashTotal,
              cashStep,
              ways: [rulesOf(CASH_WAY)],
              parts: [{ way: 'cash', gives }],
            });
            assert.ok('parts' in paid);
            tin += gives - paid.change;
            taken.handed += gives;
            taken.change += paid.change;
          }
          assert.equal(expectedCash(drawer, taken), tin);
        },
      ),
    );
  });

  it('opens with what was counted', () => {
    const counts = [
      { value: 1000, count: 2 },
      { value: 100, count: 0 },
    ];
    const outcome = openDrawer({
      id: idOf(4, 2),
      event: idOf(2, 1),
      name: ' Tin ',
      counts,
      open: [],
    });
    assert.ok(outcome.ok);
    assert.deepEqual(outcome.drafts[0]?.body, {
      name: 'Tin',
      float: 2000,
      counts: [{ value: 1000, count: 2 }],
    });
  });

  it('needs a name', () =>
    assert.equal(
      code(openDrawer({ id: 'x', event: 'e', name: ' ', counts: [], open: [] })),
      'drawer/no-name',
    ));

  it('is counted: the figures of that moment, and the event has been counted', () => {
    const outcome = count({});
    assert.ok(outcome.ok);
    assert.deepEqual(
      outcome.drafts.map(({ kind }) => kind),
      ['drawer.counted', 'event.stage'],
    );
    const { expected, counted, difference } = outcome.drafts[0]!.body;
    assert.deepEqual([expected, counted, difference], [10_240, 10_240, 0]);
  });

  it('leaves the event trading while another drawer is open', () => {
    const outcome = count({ othersAreOpen: true });
    assert.ok(outcome.ok);
    assert.equal(outcome.drafts.length, 1);
  });

  const short = [{ value: 2000, count: 5 }];
  it('wants a reason for a difference', () => {
    const outcome = count({ counts: short });
    assert.deepEqual(outcome.ok ? null : outcome.refusal, {
      code: 'drawer/reason-wanted',
      difference: -240,
    });
    assert.equal(code(count({ counts: short, reason: 'change error at noon' })), 'done');
  });

  for (const wrong of [-1, 1.5, Number.NaN, 100_000]) {
    it(`refuses ${wrong} coins`, () =>
      assert.equal(code(count({ counts: [{ value: 20, count: wrong }] })), 'drawer/bad-count'));
  }

  it('is counted once', () => {
    const read = {
      ...drawer,
      drawer: drawer.id,
      number: 1,
      expected: 0,
      counted: 0,
      difference: 0,
      reason: '',
      ...{ stays: 0, bag: null, first: null },
    };
    assert.equal(code(count({ reads: [read] })), 'drawer/counted-already');
  });
});

/** Points and rewards, drawn for the property tests: set up, brought by sales, spent, moved, gone back with goods. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { CASH_WAY, type WayToPay } from '../payment/ways';
import type { PointsFacts } from '../points/points-facts';
import { NO_POINTS, type Reward } from '../points/points-rule';
import { POINTS } from '../points/promotion-methods';
import { takePart } from '../sale/take-part';
import { emptySlip, putItem } from '../slip/open-slip';
import { customerId, DRAWER, EVENT, idOf, item, pricing, tax } from './made-up-business';
import { cameBack, voided, type Writer } from './put-right-drafts';

export const POINTS_DOES = [
  'rule',
  'reward',
  'earn',
  'points',
  'use',
  'void',
  'back',
  'off',
  'move',
] as const;

export interface PointsStep {
  readonly does: 'points';
  readonly what: (typeof POINTS_DOES)[number];
  readonly n: number;
  readonly amount: number;
}

export const pointsWay = (method: 'points' | 'reward'): WayToPay => ({
  ...CASH_WAY,
  id: idOf(33, method === 'points' ? 11 : 12),
  setStamp: 'x',
  ...{ name: method, method, needsCustomer: true, opensDrawer: false, givesChange: false },
});

export const rewardOf = (n: number): Reward => ({
  ...{ id: idOf(60, n), setStamp: 'x', name: `Reward ${String(n)}`, spend: 5000, value: 300 },
  ...{ from: '', until: '', categories: [], isActive: true },
});

/** A point for each 50, worth a minor unit and a half. */
export const RULE = { ...NO_POINTS, isOn: true, per: 50, points: 1, worth: 1500 };

/** As a device knows it that has heard of enough: whether that is so the books say. */
export const pointsFacts = (n: number, more: Partial<PointsFacts> = {}): PointsFacts => ({
  rule: RULE,
  rewards: [rewardOf(n)],
  has: new Map([
    [POINTS, 400],
    [rewardOf(n).id, 12_000],
  ]),
  movedOn: '',
  goods: new Map(),
  ...more,
});

export function pointsDrafts(
  writer: Writer,
  { what, n, amount }: PointsStep,
  by: string | null,
  now: number,
): readonly Draft[] {
  switch (what) {
    case 'rule': {
      const body = { ...RULE, per: amount, isOn: n === 1 };
      return [draft('business.points', writer.newId(), null, body)];
    }
    case 'reward': {
      const { setStamp: _stamp, ...body } = rewardOf(n);
      return [
        draft('reward.set', writer.newId(), null, { ...body, categories: [], value: amount }),
      ];
    }
    case 'move': {
      const body = { customer: customerId(n), of: POINTS, reason: 'from paper' } as const;
      const quantity = amount % 2 === 0 ? amount : -amount;
      return [draft('points.moved', writer.newId(), null, { ...body, quantity })];
    }
    case 'earn':
      return soldFor(writer, n, amount, null, now);
    case 'points':
      return soldFor(writer, n, amount, 'points', now);
    case 'use':
      return soldFor(writer, n, amount, 'reward', now);
    case 'void': {
      const sold = soldFor(writer, n, amount, 'points', now);
      return [...sold, ...voided(writer, sold, by, true)];
    }
    case 'back':
    case 'off': {
      const sold = soldFor(writer, n, amount, amount % 2 === 0 ? 'reward' : 'points', now);
      return [...sold, ...cameBack(writer, sold, by, what === 'off' ? 'off' : 'broken')];
    }
  }
}

/** Two things and another, paid by points or a reward as far as those go, and the rest in cash. */
function soldFor(
  writer: Writer,
  n: number,
  amount: number,
  method: 'points' | 'reward' | null,
  now: number,
): readonly Draft[] {
  const first = putItem(emptySlip(writer.newId()), item(n, 40 + amount), 2000, 'a');
  const put = first.ok ? putItem(first.slip, item(3 - n, 105), 1000, 'b') : first;
  if (!put.ok) throw new Error(put.refusal.code);
  const slip = { ...put.slip, customer: { id: customerId(n), name: 'Wren', discount: '0' } };
  const setting = {
    ...{ newId: writer.newId, pricing, taxes: [tax], now, points: pointsFacts(n) },
    ...{ event: { id: EVENT, timeZone: 'Europe/London' }, drawer: DRAWER },
    ...{ deviceNumber: writer.number, number: writer.nextSale() },
  };
  if (method === null) return taken({ ...setting, slip, way: CASH_WAY, amount: null }).drafts;
  const given = taken({
    ...{ ...setting, slip, way: pointsWay(method), amount: null },
    reference: method === 'reward' ? rewardOf(n).id : '',
  });
  if (given.slip === null) return given.drafts;
  const paid = taken({ ...setting, slip: given.slip, way: CASH_WAY, amount: null });
  return [...given.drafts, ...paid.drafts];
}

function taken(command: Parameters<typeof takePart>[0]) {
  const outcome = takePart(command);
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  return outcome;
}

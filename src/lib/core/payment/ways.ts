/** Ways to pay: which are open, in what order, and what the sums need to know of each. */
import type { Row } from '../books/tables';
import { isKnown } from '../event/todays-event';
import type { WayRules } from './pay';

export type WayToPay = Row<'ways'>;

/** Notes and coins: every business has it, set up or not. */
export const CASH_WAY: WayToPay = {
  id: 'cash',
  setStamp: '',
  name: 'Cash',
  sort: 0,
  method: 'cash',
  side: 'cash',
  needsCustomer: false,
  reference: '',
  account: '',
  surchargeRate: '0',
  surchargeFixed: 0,
  opensDrawer: true,
  givesChange: true,
  ledger: '',
  isActive: true,
  offlineMost: null,
  lasts: 0,
  purpose: '',
};

/** All ways that were set up, put away ones too, in the vendor's order; cash is always among them. */
export function allWays(rows: readonly WayToPay[]): readonly WayToPay[] {
  const known = rows.filter(isKnown);
  const all = known.some(({ id }) => id === CASH_WAY.id) ? known : [CASH_WAY, ...known];
  return [...all].sort((a, b) => a.sort - b.sort || (a.id < b.id ? -1 : 1));
}

/**
 * The ways that are open at an event: the ones it names, in its order, or all in the vendor's.
 * What the vendor has put away is open nowhere.
 */
export function waysOpen(
  rows: readonly WayToPay[],
  event: Pick<Row<'events'>, 'ways'> | undefined,
): readonly WayToPay[] {
  const active = allWays(rows).filter(({ isActive }) => isActive);
  const named = event?.ways ?? null;
  if (named === null) return active;
  return named.flatMap((id) => active.filter((way) => way.id === id));
}

/** As the sums want it. */
export const rulesOf = (way: WayToPay): WayRules => ({
  id: way.id,
  side: way.side,
  cash: way.method === 'cash',
  change: way.givesChange,
  surchargeRate: way.surchargeRate,
  surchargeFixed: way.surchargeFixed,
});

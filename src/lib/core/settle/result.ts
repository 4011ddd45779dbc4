/** What an event left: takings without tax, less all that it took. Minor units. */
import { costOfCost, feeOf, NO_FEE } from '../event/pitch-fee';
import { momentOf } from '../event/local-time';
import { dayAfter, isOverMidnight } from '../event/event-days';
import { spentAt } from '../drawer/cash-places';
import { fraction, roundToMinor } from '../money/fraction';
import { sum } from '../money/units';
import type { PaySettled } from './people';
import type { SettlingRows } from './rows';

export interface CostLine {
  readonly what: string;
  readonly amount: number;
  /** Agreed beforehand, paid from a drawer or the safe, or paid while settling. */
  readonly is: 'agreed' | 'from cash' | 'paid' | 'earned';
  /** Who earned it, where it is somebody's wage or commission. */
  readonly person?: string;
}

export interface EventResult {
  readonly takings: number;
  /** How many sales. */
  readonly sales: number;
  readonly tax: number;
  readonly net: number;
  readonly goods: number;
  readonly cardFees: number;
  readonly pitch: number;
  readonly makers: number;
  readonly costs: readonly CostLine[];
  readonly left: number;
  /** Minutes of trading, by the event's hours. */
  readonly minutes: number;
  /** Per trading hour, `R(left × 60 / minutes)`; null where it has no hours. */
  readonly perHour: number | null;
  /** Thousandths of what was loaded that were sold; null where nothing was. */
  readonly sellThrough: number | null;
  /** What takings, with tax, would just have paid for the day; null where no takings ever would. */
  readonly breakEven: number | null;
  /** Takings of the edition before, if there is one. */
  readonly before: SettlingRows['before'];
}

/** Minutes between opening and closing, over all days; over midnight where it closes before it opens. */
export const tradingMinutes = ({ days, timeZone }: SettlingRows['event']): number =>
  sum(
    days.map((day) => {
      const zone = timeZone === '' ? 'UTC' : timeZone;
      const until = isOverMidnight(day) ? dayAfter(day.date) : day.date;
      return Math.max(
        0,
        Math.round(
          (momentOf(until, day.closes, zone) - momentOf(day.date, day.opens, zone)) / 60_000,
        ),
      );
    }),
  );

export function resultOf(
  rows: SettlingRows,
  {
    cardFees,
    makers,
    pay,
  }: {
    readonly cardFees: number;
    readonly makers: number;
    readonly pay: readonly PaySettled[];
  },
): EventResult {
  const { event, totals, movements, eventItems, before } = rows;
  const { takings = 0, sales = 0, tax = 0, cost = 0 } = totals ?? {};
  const net = takings - tax;
  const fee = event.fee ?? NO_FEE;
  const pitch = feeOf(fee, { gross: takings, net });
  const costs = costsOf(rows, pay);
  const other = sum(costs.map(({ amount }) => amount));
  const left = net - cost - cardFees - pitch - makers - other;
  const minutes = tradingMinutes(event);
  const loaded = sum(movements.flatMap(({ to, quantity }) => (to === event.id ? quantity : [])));
  const brought = new Set(movements.flatMap(({ to, item }) => (to === event.id ? item : [])));
  const sold = sum(eventItems.flatMap(({ item, quantity }) => (brought.has(item) ? quantity : [])));
  return {
    ...{
      takings,
      sales,
      tax,
      net,
      goods: cost,
      cardFees,
      pitch,
      makers,
      costs,
      left,
      minutes,
      before,
    },
    perHour: minutes === 0 ? null : roundToMinor(fraction(BigInt(left) * 60n, minutes)),
    sellThrough: loaded <= 0 ? null : roundToMinor(fraction(BigInt(sold) * 1000n, loaded)),
    breakEven: breakEven(rows, { takings, left, other, pitch }),
  };
}

/**
 * What would have been taken for nothing to be left: costs that stand whatever is taken, over what each pound of
 * takings leaves after goods, fees and a pitch that follows them; takings below what was taken count the same.
 */
function breakEven(
  { event }: SettlingRows,
  { takings, left, other, pitch }: { takings: number; left: number; other: number; pitch: number },
): number | null {
  const fee = event.fee ?? NO_FEE;
  const standing = other + (fee.kind === 'fixed' ? pitch : fee.kind === 'both' ? fee.fixed : 0);
  const margin = left + standing;
  if (takings <= 0 || margin <= 0) return null;
  return roundToMinor(fraction(BigInt(standing) * BigInt(takings), margin));
}

/** A bill that was paid from cash is not counted again where it was agreed beforehand under the same words. */
function costsOf(
  { event, cashMoves, paidOut }: SettlingRows,
  pay: readonly PaySettled[],
): readonly CostLine[] {
  const spent = cashMoves.flatMap(({ from, to, what, amount }): CostLine[] => {
    const [on, of] = [spentAt(to), spentAt(from)];
    if (on !== null && on !== 'pitch')
      return [{ what: what === '' ? on : what, amount, is: 'from cash' }];
    // Given back by whoever it was paid to.
    return of !== null && of !== 'pitch' ? [{ what, amount: -amount, is: 'from cash' }] : [];
  });
  const paid = paidOut.flatMap(({ for: what, whom, what: said, amount }): CostLine[] =>
    what === 'cost' || ((what === 'wages' || what === 'commission') && whom === null)
      ? [{ what: said === '' ? what : said, amount, is: 'paid' }]
      : [],
  );
  // What somebody has earned counts before it is paid; what was paid beyond it counts as well.
  const earned = pay.flatMap(({ person, wage, commission, paidWage, paidCommission }): CostLine[] =>
    [
      { what: 'wages', amount: Math.max(wage, paidWage) },
      { what: 'commission', amount: Math.max(commission, paidCommission) },
    ].flatMap((each) => (each.amount === 0 ? [] : { ...each, is: 'earned' as const, person })),
  );
  const named = new Set(
    [...spent, ...paid, ...earned].map(({ what }) => what.trim().toLowerCase()),
  );
  const agreed = event.costs
    .filter(({ what }) => !named.has(what.trim().toLowerCase()))
    .map((each): CostLine => ({ what: each.what, amount: costOfCost(each), is: 'agreed' }));
  return [...agreed, ...spent, ...paid, ...earned];
}

/** Pitches and other costs of events that are still to be paid, and lines of statements that may have paid them. */
import type { Row } from '../books/tables';
import { spentAt } from '../drawer/cash-places';
import { firstDay, lastDay } from '../event/todays-event';
import { costOfCost, feeOf, NO_FEE } from '../event/pitch-fee';
import { sum } from '../money/units';
import type { BankLine } from './match-bank';

export interface CostRows {
  readonly events: readonly Pick<
    Row<'events'>,
    'id' | 'name' | 'organiser' | 'days' | 'fee' | 'costs'
  >[];
  readonly totals: readonly Pick<Row<'eventTotals'>, 'event' | 'takings' | 'tax'>[];
  /** What was paid and not taken back, from wherever it came. */
  readonly paid: readonly Pick<Row<'paidOut'>, 'event' | 'for' | 'what' | 'amount'>[];
  readonly cashMoves: readonly Pick<Row<'cashMoves'>, 'event' | 'to' | 'what' | 'amount'>[];
}

/** What is left to pay of one cost of one event; minor units, above nothing. */
export interface DueCost {
  readonly event: string;
  readonly for: 'pitch' | 'cost';
  /** The cost in the words it was agreed under; of a pitch, whose it is. */
  readonly what: string;
  readonly amount: number;
  readonly from: string;
  readonly until: string;
  /** What a statement may call it. */
  readonly names: readonly string[];
}

export interface CostProposal extends Pick<DueCost, 'event' | 'for' | 'what' | 'amount'> {
  /** The event's first: editions of one name are told apart by it. ISO date. */
  readonly day: string;
  readonly line: string;
  readonly by: 'name' | 'amount';
}

const same = (text: string): string => text.trim().toLowerCase();

/** A pitch by its rule, as takings are now. */
export function dueCostsOf({ events, totals, paid, cashMoves }: CostRows): readonly DueCost[] {
  return events.flatMap((event): DueCost[] => {
    if (event.days.length === 0) return [];
    const { takings = 0, tax = 0 } = totals.find((row) => row.event === event.id) ?? {};
    const mine = paid.filter((row) => row.event === event.id);
    const spent = cashMoves.filter((move) => move.event === event.id && spentAt(move.to) !== null);
    const [from, until] = [firstDay(event), lastDay(event)];
    const paidFor = (is: DueCost['for'], isIt: (what: string) => boolean): number =>
      sum(mine.flatMap((row) => (row.for === is && isIt(row.what) ? row.amount : []))) +
      sum(
        spent.flatMap(({ to, what, amount }) =>
          (spentAt(to) === 'pitch') === (is === 'pitch') && isIt(what) ? amount : [],
        ),
      );
    const pitch = feeOf(event.fee ?? NO_FEE, { gross: takings, net: takings - tax });
    const due: DueCost[] = [
      {
        ...({ event: event.id, for: 'pitch', what: event.organiser, from, until } as const),
        amount: pitch - paidFor('pitch', () => true),
        names: [event.organiser, event.name],
      },
      ...event.costs.map((cost): DueCost => ({
        ...({ event: event.id, for: 'cost', what: cost.what, from, until } as const),
        amount: costOfCost(cost) - paidFor('cost', (what) => same(what) === same(cost.what)),
        names: [cost.what],
      })),
    ];
    return due.filter(({ amount }) => amount > 0);
  });
}

/** A pitch is paid for beforehand, a bill comes after; days. */
export const BEFORE_DAYS = 120;
export const AFTER_DAYS = 60;
const DAY = 86_400_000;
const SHORTEST_NAME = 4;
const plain = (text: string): string => text.replace(/[^\p{L}\p{N}]/gu, '').toUpperCase();

/**
 * Lines that went with the very amount of a cost, near its event. Where the line names one of them, the others are
 * not proposed. None is certain: what else comes to as much is not known here.
 */
export function proposeCosts(
  lines: readonly BankLine[],
  due: readonly DueCost[],
): readonly CostProposal[] {
  const byAmount = new Map<number, DueCost[]>();
  for (const cost of due) byAmount.set(cost.amount, [...(byAmount.get(cost.amount) ?? []), cost]);
  return lines.flatMap((line): CostProposal[] => {
    if (line.left >= 0) return [];
    const said = plain(`${line.reference} ${line.text} ${line.other}`);
    const at = Date.parse(line.day);
    const near = (byAmount.get(-line.left) ?? []).filter(
      ({ from, until }) =>
        at >= Date.parse(from) - BEFORE_DAYS * DAY && at <= Date.parse(until) + AFTER_DAYS * DAY,
    );
    const named = near.filter(({ names }) =>
      names.some((name) => plain(name).length >= SHORTEST_NAME && said.includes(plain(name))),
    );
    const by = named.length > 0 ? 'name' : 'amount';
    return (named.length > 0 ? named : near).map(({ event, for: is, what, amount, from }) => ({
      ...{ line: line.id, event, for: is, what, amount, by, day: from },
    }));
  });
}

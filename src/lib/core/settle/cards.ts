/** Cards of an event: what the tills say, what the acquirer's report says, what has come. Minor units. */
import { cardState } from '../payment/card-state';
import { sum } from '../money/units';
import { matchCards, type CardMatch, type CardPayment, type ReportLine } from './match-cards';
import type { SettlingRows } from './rows';

type Line = SettlingRows['lines'][number];

export interface SettledCard {
  readonly payment: string;
  readonly way: string;
  readonly amount: number;
  readonly last4: string;
  readonly at: string;
  readonly by: string | null;
}

/** A line of the report that does not fit, and why. */
export interface OddLine {
  readonly line: string;
  readonly is: 'double' | 'unknown' | 'amount' | 'chargeback' | 'refund' | 'decline';
  readonly amount: number;
  /** What the report has more than the till. */
  readonly difference: number;
  readonly last4: string;
  readonly at: string;
  /** The payment that it is about, if one is known. */
  readonly payment: string | null;
  readonly candidates: readonly string[];
}

export interface Payout {
  readonly payout: string;
  readonly day: string;
  readonly gross: number;
  readonly fees: number;
  /** What of the gross is of which way to pay, as far as its payments are known. */
  readonly ways: readonly { readonly way: string; readonly amount: number }[];
  /** What has come to the bank of it, as somebody or a statement says. */
  readonly came: number;
}

export interface CardsSettled {
  /** Charged, as the tills have it. */
  readonly tills: number;
  /** Taken with no network, and not sent yet. */
  readonly carried: number;
  /** Taken, and declined since. */
  readonly failed: number;
  readonly isReported: boolean;
  readonly reported: number;
  readonly fees: number;
  /** What was taken back: refunds and chargebacks, below nothing. */
  readonly back: number;
  readonly missing: readonly SettledCard[];
  readonly odd: readonly OddLine[];
  readonly payouts: readonly Payout[];
  /** How many payments the report has by reference, by likeness, and joined by hand. */
  readonly paired: { readonly reference: number; readonly likeness: number; readonly hand: number };
}

export function settleCards({ cards, refunds, lines, joins, came }: SettlingRows): CardsSettled {
  const taken: SettledCard[] = [];
  const figures = { carried: 0, failed: 0 };
  for (const card of cards) {
    const state = cardState(card);
    const { id: payment, way, last4, by } = card;
    const at = card.resultAt === '' ? card.at : card.resultAt;
    if (state.is === 'taken') taken.push({ payment, way, amount: state.amount, last4, at, by });
    if (state.is === 'carried') figures.carried += card.amount;
    if (state.is === 'failed') figures.failed += card.amount;
  }
  const byHand = new Map(joins.map(({ id, payment }) => [id, payment]));
  const known = new Set(cards.map(({ id }) => id));
  // Said to be none of ours, or joined to a payment of another event.
  const own = lines.filter(({ id }) => {
    const joined = byHand.get(id);
    return joined === undefined || (joined !== null && known.has(joined));
  });
  const even = evenlyUndone(cards, own);
  const standing = own.filter(({ reference }) => !even.has(reference));
  const expected = refundsIn(standing, refunds, byHand);
  const paid = standing
    .filter(({ sort }) => sort === 'payment')
    .sort((a, b) => (a.paidAt < b.paidAt ? -1 : a.paidAt > b.paidAt ? 1 : a.id < b.id ? -1 : 1));
  const match = matchCards(taken.map(asPayment), paid.map(asLine(byHand)));
  const cardOf = new Map(taken.map((card) => [card.payment, card]));
  const lineAt = (line: number): Line => paid[line]!;
  const odd: OddLine[] = [
    ...match.double.map((line) => oddOf(lineAt(line), 'double', 0)),
    ...match.unknown.map(({ line, candidates }) => oddOf(lineAt(line), 'unknown', 0, candidates)),
    ...match.pairs.flatMap(({ line, payment, difference }) =>
      difference === 0 ? [] : { ...oddOf(lineAt(line), 'amount', difference), payment },
    ),
    ...standing.flatMap((line) => {
      if (line.sort === 'payment' || expected.has(line.id)) return [];
      const payment = byHand.get(line.id) ?? referenced(line, known);
      // Nothing comes of it: what it had been taken for says more.
      const amount = line.amount === 0 ? cardOf.get(payment ?? '')?.amount : undefined;
      const odd = oddOf(line, line.sort, 0);
      return { ...odd, amount: amount ?? odd.amount, payment };
    }),
  ];
  // Declined after all: that it is not there as a payment is the same thing once more.
  const declined = new Set(
    own.flatMap(({ id, sort, reference }) =>
      sort === 'decline' ? (byHand.get(id) ?? reference) : [],
    ),
  );
  const hand = match.pairs.filter(({ line }) => byHand.has(lineAt(line).id)).length;
  const count = (by: string): number => match.pairs.filter((pair) => pair.by === by).length;
  return {
    tills: sum(taken.map(({ amount }) => amount)),
    ...figures,
    isReported: lines.length > 0,
    reported: sum(paid.map(({ amount }) => amount)),
    fees: sum(own.map(({ fee }) => fee)),
    back: sum(standing.flatMap(({ sort, amount }) => (isBack(sort) ? amount : []))),
    // Where nothing was reported yet, nothing is missing from it.
    missing:
      lines.length === 0
        ? []
        : match.missing.flatMap((payment) => (declined.has(payment) ? [] : cardOf.get(payment)!)),
    odd,
    payouts: payoutsOf(own, wayOfLine([...cards, ...onto(refunds)], match, paid, byHand), came),
    paired: { reference: count('reference') - hand, likeness: count('likeness'), hand },
  };
}

/**
 * Cards that the tills gave back, and that the report has as taken and given back again: nothing of them is left on
 * either side.
 */
function evenlyUndone(cards: SettlingRows['cards'], lines: readonly Line[]): ReadonlySet<string> {
  const undone = new Set(
    cards.flatMap((card) => {
      const { is } = cardState(card);
      return is === 'taken' || is === 'carried' || is === 'held' ? [] : card.id;
    }),
  );
  const sums = new Map<string, number>();
  for (const { reference, amount } of lines)
    if (undone.has(reference)) sums.set(reference, (sums.get(reference) ?? 0) + amount);
  return new Set([...sums].flatMap(([reference, left]) => (left === 0 ? reference : [])));
}

/** Lines that say that goods came back, as the tills have it: each refund by its payment and amount, once. */
function refundsIn(
  lines: readonly Line[],
  refunds: SettlingRows['refunds'],
  byHand: ReadonlyMap<string, string | null>,
): ReadonlySet<string> {
  const open = refunds.filter(({ state }) => state === 'refunded');
  const found = new Set<string>();
  for (const line of lines) {
    if (line.sort !== 'refund') continue;
    const payment = byHand.get(line.id) ?? line.reference;
    const at = open.findIndex((each) => each.payment === payment && each.amount === -line.amount);
    if (at === -1) continue;
    open.splice(at, 1);
    found.add(line.id);
  }
  return found;
}

const isBack = (sort: Line['sort']): boolean => sort === 'refund' || sort === 'chargeback';
const referenced = ({ reference }: Line, known: ReadonlySet<string>): string | null =>
  known.has(reference) ? reference : null;

const asPayment = ({ payment, amount, last4, at }: SettledCard): CardPayment => ({
  id: payment,
  reference: payment,
  ...{ amount, last4, at },
});

/** What was joined by hand has the reference of what it was joined to. */
const asLine =
  (byHand: ReadonlyMap<string, string | null>) =>
  (line: Line, at: number): ReportLine => ({
    line: at,
    reference: byHand.get(line.id) ?? line.reference,
    ...{ amount: line.amount, last4: line.last4, at: line.paidAt },
  });

const oddOf = (
  line: Line,
  is: OddLine['is'],
  difference: number,
  candidates: readonly string[] = [],
): OddLine => ({
  line: line.id,
  is,
  difference,
  candidates,
  ...{ amount: line.amount, last4: line.last4, at: line.paidAt },
  payment: null,
});

function pushTo(all: Map<string, Line[]>, key: string, line: Line): void {
  const there = all.get(key);
  if (there === undefined) all.set(key, [line]);
  else there.push(line);
}

/** Of which way to pay a line is: that of the payment it was paired with, joined to, or names. */
function wayOfLine(
  cards: readonly { readonly id: string; readonly way: string }[],
  { pairs }: CardMatch,
  paid: readonly Line[],
  byHand: ReadonlyMap<string, string | null>,
): (line: Line) => string | undefined {
  const ways = new Map(cards.map(({ id, way }) => [id, way]));
  const paired = new Map(pairs.map(({ line, payment }) => [paid[line]!.id, payment]));
  return ({ id, reference }) => ways.get(paired.get(id) ?? byHand.get(id) ?? reference);
}

/** Money that went onto a card that had paid for nothing is of no payment but itself. */
const onto = (refunds: SettlingRows['refunds']): { id: string; way: string }[] =>
  refunds.flatMap(({ id, payment, way }) => (id === payment ? { id, way } : []));

function payoutsOf(
  lines: readonly Line[],
  wayOf: (line: Line) => string | undefined,
  came: SettlingRows['came'],
): readonly Payout[] {
  const found = new Map<string, Line[]>();
  for (const line of lines)
    if (line.payout !== '' && line.sort !== 'decline') pushTo(found, line.payout, line);
  return [...found]
    .map(([payout, of]) => {
      const ways = new Map<string, number>();
      for (const line of of) {
        const way = wayOf(line);
        if (way !== undefined) ways.set(way, (ways.get(way) ?? 0) + line.amount);
      }
      return {
        payout,
        day: of[0]?.payoutDay ?? '',
        gross: sum(of.map(({ amount }) => amount)),
        fees: sum(of.map(({ fee }) => fee)),
        ways: [...ways].map(([way, amount]) => ({ way, amount })),
        came: sum(came.flatMap(({ what, amount }) => (what === payout ? amount : []))),
      };
    })
    .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : a.payout < b.payout ? -1 : 1));
}

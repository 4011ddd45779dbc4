/** Pairing what the tills say cards paid with what the acquirer's report says (docs/rules.md, "Matching cards"). */

/** A card payment as the tills have it. */
export interface CardPayment {
  readonly id: string;
  readonly reference: string;
  /** Minor units: what the card was charged, with surcharge and tip. */
  readonly amount: number;
  readonly last4: string;
  /** ISO 8601. */
  readonly at: string;
}

/** A line of the report. */
export interface ReportLine extends Omit<CardPayment, 'id'> {
  /** Its place in the report, by which it is named. */
  readonly line: number;
}

export interface CardPair {
  readonly line: number;
  readonly payment: string;
  readonly by: 'reference' | 'likeness';
  /** What the report has more than the till, minor units. */
  readonly difference: number;
}

/** Everything that was compared, each line and payment once. */
export interface CardMatch {
  readonly pairs: readonly CardPair[];
  /** Further lines for payments that have one. */
  readonly double: readonly number[];
  /** Lines of no payment that is known, each with the payments that it may be of. */
  readonly unknown: readonly { readonly line: number; readonly candidates: readonly string[] }[];
  /** Payments that the report does not have. */
  readonly missing: readonly string[];
}

/** How far apart two that are alike may be. */
export const LIKENESS_MINUTES = 15;
const APART = LIKENESS_MINUTES * 60_000;

interface Free {
  readonly id: string;
  /** Its place among the payments, in which candidates are named. */
  readonly place: number;
  readonly time: number;
}

const likenessOf = ({ amount, last4 }: Pick<CardPayment, 'amount' | 'last4'>): string =>
  `${String(amount)} ${last4}`;

/**
 * Pairs by reference, the first line first; then, among lines with an unknown reference and payments that are still
 * free, by likeness where exactly one is like exactly one. Answers in the order of the report and of the tills.
 */
export function matchCards(
  payments: readonly CardPayment[],
  report: readonly ReportLine[],
): CardMatch {
  const byReference = new Map<string, CardPayment>();
  for (const payment of payments)
    if (payment.reference !== '' && !byReference.has(payment.reference))
      byReference.set(payment.reference, payment);

  const pairOf = new Map<ReportLine, CardPair>();
  const paired = new Set<string>();
  const double: number[] = [];
  const strangers: ReportLine[] = [];
  for (const line of report) {
    const payment = byReference.get(line.reference);
    if (payment === undefined) strangers.push(line);
    else if (paired.has(payment.id)) double.push(line.line);
    else {
      paired.add(payment.id);
      const difference = line.amount - payment.amount;
      pairOf.set(line, { line: line.line, payment: payment.id, by: 'reference', difference });
    }
  }

  const alike = whatIsLike(
    payments.filter(({ id }) => !paired.has(id)),
    strangers,
  );
  const unknown: { line: number; candidates: readonly string[] }[] = [];
  for (const [line, candidates] of alike.byLine) {
    const [only] = candidates;
    if (only !== undefined && candidates.length === 1 && alike.lines.get(only) === 1) {
      paired.add(only);
      pairOf.set(line, { line: line.line, payment: only, by: 'likeness', difference: 0 });
    } else unknown.push({ line: line.line, candidates });
  }
  return {
    pairs: report.flatMap((line) => pairOf.get(line) ?? []),
    double,
    unknown,
    missing: payments.flatMap(({ id }) => (paired.has(id) ? [] : id)),
  };
}

/** Which free payments each line is like, and how many lines each of them is like. */
function whatIsLike(payments: readonly CardPayment[], lines: readonly ReportLine[]) {
  const free = new Map<string, Free[]>();
  payments.forEach((payment, place) => {
    const name = likenessOf(payment);
    const all = free.get(name) ?? [];
    all.push({ id: payment.id, place, time: Date.parse(payment.at) });
    free.set(name, all);
  });
  for (const all of free.values()) all.sort((a, b) => a.time - b.time);

  const byLine = new Map<ReportLine, readonly string[]>();
  const count = new Map<string, number>();
  for (const line of lines) {
    const time = Date.parse(line.at);
    const all = free.get(likenessOf(line)) ?? [];
    const candidates: Free[] = [];
    for (let at = firstFrom(all, time - APART); at < all.length; at += 1) {
      const each = all[at]!;
      if (each.time > time + APART) break;
      candidates.push(each);
      count.set(each.id, (count.get(each.id) ?? 0) + 1);
    }
    candidates.sort((a, b) => a.place - b.place);
    byLine.set(
      line,
      candidates.map(({ id }) => id),
    );
  }
  return { byLine, lines: count };
}

/** Where the first is that is not before the time. */
function firstFrom(all: readonly Free[], time: number): number {
  let [low, high] = [0, all.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (all[middle]!.time < time) low = middle + 1;
    else high = middle;
  }
  return low;
}

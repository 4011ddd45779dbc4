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
  /** The place of a payment, by its reference; the first that claims it has it. */
  const byReference = new Map<string, number>();
  payments.forEach(({ reference }, place) => {
    if (reference !== '' && !byReference.has(reference)) byReference.set(reference, place);
  });

  const isPaired = new Array<boolean>(payments.length).fill(false);
  /** By the place of the line. */
  const pairOf = new Array<CardPair | undefined>(report.length);
  const double: number[] = [];
  const strangers: number[] = [];
  report.forEach(({ line, reference, amount }, at) => {
    const place = byReference.get(reference);
    if (place === undefined) strangers.push(at);
    else if (isPaired[place] === true) double.push(line);
    else {
      const { id: payment, amount: asked } = payments[place]!;
      isPaired[place] = true;
      pairOf[at] = { line, payment, by: 'reference', difference: amount - asked };
    }
  });

  const unknown: { line: number; candidates: readonly string[] }[] = [];
  const alike = whatIsLike(payments, isPaired, report, strangers);
  strangers.forEach((at, n) => {
    const { line } = report[at]!;
    const found = alike.candidates[n]!;
    const [only] = found;
    if (only !== undefined && found.length === 1 && alike.lines.get(only) === 1) {
      isPaired[only] = true;
      pairOf[at] = { line, payment: payments[only]!.id, by: 'likeness', difference: 0 };
    } else unknown.push({ line, candidates: found.map((place) => payments[place]!.id) });
  });
  return {
    pairs: pairOf.filter((pair) => pair !== undefined),
    double,
    unknown,
    missing: payments.flatMap(({ id }, place) => (isPaired[place] === true ? [] : id)),
  };
}

/** The places of the free payments that each line is like, and how many lines each of them is like. */
function whatIsLike(
  payments: readonly CardPayment[],
  isPaired: readonly boolean[],
  report: readonly ReportLine[],
  strangers: readonly number[],
) {
  const lines = new Map<number, number>();
  // Only what a line asks for is looked at.
  const free = new Map<string, Free[]>();
  for (const at of strangers) free.set(likenessOf(report[at]!), []);
  payments.forEach((payment, place) => {
    if (isPaired[place] === true || free.size === 0) return;
    free.get(likenessOf(payment))?.push({ place, time: Date.parse(payment.at) });
  });
  for (const all of free.values()) all.sort((a, b) => a.time - b.time);

  const candidates = strangers.map((at) => {
    const line = report[at]!;
    const time = Date.parse(line.at);
    const all = free.get(likenessOf(line)) ?? [];
    const found: number[] = [];
    for (let n = firstFrom(all, time - APART); n < all.length; n += 1) {
      const each = all[n]!;
      if (each.time > time + APART) break;
      found.push(each.place);
      lines.set(each.place, (lines.get(each.place) ?? 0) + 1);
    }
    return found.sort((a, b) => a - b);
  });
  return { candidates, lines };
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

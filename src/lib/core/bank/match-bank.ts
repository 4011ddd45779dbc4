/** Which line of a statement may be which money (docs/rules.md, "Lines of statements"). Minor units. */
import type { OpenMoney } from './open-money';

/** A line, as far as nothing has been said of it. */
export interface BankLine {
  readonly id: string;
  readonly day: string;
  readonly amount: number;
  /** What of it has not been joined to anything. */
  readonly left: number;
  readonly reference: string;
  readonly text: string;
  readonly other: string;
}

export interface Proposal {
  readonly line: string;
  /** Names the open money. */
  readonly key: string;
  readonly by: 'reference' | 'amount';
  /** What the line has more than is expected. */
  readonly difference: number;
  /** By reference, the same amount, and nothing else fits: it needs no look. */
  readonly isCertain: boolean;
}

/** A line that says the same as money that has come already: banked twice, or taken in under another name. */
export interface Already {
  readonly line: string;
  readonly money: string;
}

/** How many days before it is expected, and after, an amount alone makes it likely. */
export const EARLY_DAYS = 3;
export const LATE_DAYS = 21;
const DAY = 86_400_000;

const plain = (text: string): string => text.replace(/[^\p{L}\p{N}]/gu, '').toUpperCase();
/** Shorter ones could stand in anything: they have to be a word of their own, or up to three that follow each other. */
const LONG = 6;
const MOST_WORDS = 3;

interface Said {
  readonly joined: string;
  readonly words: ReadonlySet<string>;
}
const saidIn = ({ reference, text, other }: Omit<BankLine, 'id'>): Said => {
  const all = `${reference} ${text} ${other}`;
  const words = all.toUpperCase().split(/[^\p{L}\p{N}]+/u);
  const runs = words.flatMap((_, at) =>
    Array.from({ length: MOST_WORDS }, (__, more) => words.slice(at, at + more + 1).join('')),
  );
  return { joined: plain(all), words: new Set(runs) };
};
const says = ({ joined, words }: Said, reference: string): boolean =>
  reference.length >= LONG ? joined.includes(reference) : words.has(reference);

const isNear = (line: string, expected: string): boolean => {
  const apart = Date.parse(line) - Date.parse(expected);
  return !(apart < -EARLY_DAYS * DAY || apart > LATE_DAYS * DAY);
};

/**
 * Each line with what it may be: by a reference that it has, whatever its amount; else by its amount, where it comes
 * near the day. Those by reference come first; the order is that of the lines and of what is open.
 */
export function proposeBank(
  lines: readonly BankLine[],
  open: readonly OpenMoney[],
): readonly Proposal[] {
  const named = open.flatMap((money) =>
    money.references.flatMap((each) => {
      const reference = plain(each);
      return reference.length < 2 ? [] : [{ money, reference }];
    }),
  );
  const byAmount = new Map<number, OpenMoney[]>();
  for (const money of open) {
    const there = byAmount.get(money.amount);
    if (there === undefined) byAmount.set(money.amount, [money]);
    else there.push(money);
  }
  const found = lines.flatMap((line): Proposal[] => {
    if (line.left === 0) return [];
    const said = saidIn(line);
    const of = named.filter(
      ({ money, reference }) =>
        Math.sign(money.amount) === Math.sign(line.left) && says(said, reference),
    );
    const by = of.length > 0 ? 'reference' : 'amount';
    const fits =
      of.length > 0
        ? [...new Set(of.map(({ money }) => money))]
        : (byAmount.get(line.left) ?? []).filter(({ day }) => isNear(line.day, day));
    return fits.map((money) => ({
      line: line.id,
      key: money.key,
      by,
      difference: line.left - money.amount,
      isCertain: by === 'reference' && fits.length === 1 && money.amount === line.left,
    }));
  });
  const claims = new Map<string, number>();
  for (const { key, isCertain } of found)
    if (isCertain) claims.set(key, (claims.get(key) ?? 0) + 1);
  // Two lines that say the same of one sum: somebody has to look.
  return found.map((each) => ({
    ...each,
    isCertain: each.isCertain && claims.get(each.key) === 1,
  }));
}

/** Lines that have what money that came already is called, and its amount, and are not joined to it. */
export function alreadyCame(
  lines: readonly BankLine[],
  came: readonly { readonly id: string; readonly what: string; readonly amount: number }[],
): readonly Already[] {
  return lines.flatMap((line): Already[] => {
    if (line.left === 0) return [];
    const said = saidIn(line);
    const twice = came.find(({ what, amount }) => {
      const reference = plain(what);
      return reference.length >= 2 && amount === line.left && says(said, reference);
    });
    return twice === undefined ? [] : [{ line: line.id, money: twice.id }];
  });
}

/** Which sums a store has not met yet, as they are declared now: those it works out from the entries it has. */
import { add, type Change } from '../books/change';
import { digestOf } from '../daybook/digest';
import type { KnownEntry } from '../daybook/kinds';
import { journalOf } from './index';
import { sumNames, sumsOf, sumSpecs, type SumName, type SumSpec } from './sums';

/** Names of sums, and digests of how they were declared when they were worked out. */
export type SumsMade = Readonly<Record<string, string>>;

/**
 * Accounts that came later than the sums which add them: nothing that a store has added up could have been on one, so
 * that the sums of before go on as they are. (Worked out anew, a device would forget what it has let go of.)
 */
const LATER_ACCOUNTS: ReadonlySet<unknown> = new Set([
  ...['deposit', 'breakage', 'promotions', 'prepaid-tax', 'elsewhere'],
]);

/** What is said of sums since there are such postings; nothing that a store has added up was one. */
const LATER_RULES: ReadonlySet<string> = new Set(['isOfNoWay', 'notOf']);

/** How they are declared now. */
export const declaredSums = (): SumsMade =>
  Object.fromEntries(sumNames.map((name) => [name, digestOf(asDeclaredFirst(sumSpecs[name]))]));

const asDeclaredFirst = (spec: SumSpec): unknown =>
  JSON.parse(JSON.stringify(spec), (key, value: unknown) => {
    if (LATER_RULES.has(key)) return undefined;
    return Array.isArray(value) ? value.filter((each) => !LATER_ACCOUNTS.has(each)) : value;
  });

/** As the first of them were declared, in stores that had them before it was written down which they have. */
export const FIRST_SUMS: SumsMade = {
  eventTotals: 'b68c85c50ac126ef8c495ed8f8fc968c71486c3d745181d41d749dccc1996a60',
  eventItems: '4a8e5e77fcdc6de0bc98c3623dc69bae7cf864f15dc152ece263b87b0e2327d1',
  eventHours: 'b85ac6b533e36917b00a3850e992121a997379564bc52773a8587a183d097eb2',
  eventTaxes: '5e7a970b5295ad94777ca06ccf7c45b103fbc892e107ef0524c015c48d0791d5',
  eventTips: '8edf2518fdff36cb77c1f7ea23d9ae92c291e538ebac5742923e31a715fa986c',
  eventWays: '0bad5649766b574a29f345cc215ac07280fa3137ae3dc30ccb0c2a68a48ae809',
  drawerSums: 'ca6709835fa1ab19ac000868ff069b66ed06daf401c59eb490268464f6bb70fe',
  stock: '51200919c39a33b7a9f00995641c8b89eb409ae3490e0a9bc6c414be5ca077f9',
};

/** @param made What the store says it has. */
export function newSums(made: SumsMade, declared: SumsMade = declaredSums()): readonly SumName[] {
  return sumNames.filter((name) => made[name] !== declared[name]);
}

/** What an entry adds to these sums, and to no others. */
export const changesTo = (names: ReadonlySet<SumName>, entry: KnownEntry): Change[] =>
  sumsOf(journalOf(entry))
    .filter(({ sum }) => names.has(sum))
    .map(({ sum, key, fields }) => add(sum, key, fields));

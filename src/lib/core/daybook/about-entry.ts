/** An entry in a few words, for somebody who must decide about it before it is in the books. */
import type { Entry } from './entry';

const SUMS = ['total', 'amount', 'counted'];

/**
 * What identifies it to a person: a name, a stage, a number, a sum, a reason. Reads the body as it is, since it may be
 * of a shape that is not known here.
 * @param money Minor units as people write them.
 */
export function aboutEntry(
  { body }: Pick<Entry, 'body'>,
  money: (amount: number) => string,
): string {
  const parts = ['name', 'stage', 'number', ...SUMS, 'reason'].flatMap((field) => {
    const value = body[field];
    if (typeof value === 'string') return [value];
    if (typeof value !== 'number') return [];
    if (field === 'number') return [`no. ${String(value)}`];
    return [SUMS.includes(field) && Number.isSafeInteger(value) ? money(value) : String(value)];
  });
  return parts
    .filter((part) => part !== '')
    .join(' · ')
    .slice(0, 200);
}

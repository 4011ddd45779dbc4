/** An entry in a few words, for somebody who must decide about it before it is in the books. */
import type { Entry } from './entry';

/**
 * What identifies it to a person: a name, a total in minor units, a stage. Reads the body as it is,
 * since it may be of a shape that is not known here.
 */
export function aboutEntry({ body }: Pick<Entry, 'body'>): string {
  const parts = ['name', 'stage', 'number', 'total', 'counted', 'reason'].flatMap((field) => {
    const value = body[field];
    return typeof value === 'string' || typeof value === 'number' ? [String(value)] : [];
  });
  return parts
    .filter((part) => part !== '')
    .join(' · ')
    .slice(0, 200);
}

import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';

/** Somebody is asked to look after a loose end; said again, the last word counts. @param to Null for nobody. */
export const handLooseEnd = (
  newId: () => string,
  looseEnd: string,
  to: string | null,
  typed: string,
): readonly Draft[] => [
  draft('looseEnd.handed', newId(), null, { looseEnd, to, note: typed.trim().slice(0, 500) }),
];

/**
 * What an owner wants to be able to look through: who changed a price or the set-up, gave a
 * discount, opened or counted a drawer, and who lent the right to.
 */
import type { Entry } from '../../daybook/entry';
import { put, type Change } from '../change';
import type { Act } from '../tables/fields';
import { saidBy } from './said-by';

export interface ActFacts {
  readonly what: Act;
  /** What it was done to, in the words of then: an item, a person, a sale's number. */
  readonly about: string;
  /** Minor units, or null where there is no amount. */
  readonly amount: number | null;
}

/** One act; an entry is at most one. */
export const act = (entry: Entry, { what, about, amount }: ActFacts): Change =>
  put('acts', {
    id: entry.id,
    ...saidBy(entry),
    lentBy: entry.lentBy ?? null,
    device: entry.device,
    what,
    about,
    amount,
  });

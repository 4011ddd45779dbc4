/** What an entry says the acquirer made of a card, and whether the acquirer bears it out. */
import type { KnownEntry } from '../daybook/kinds';
import { sum } from '../money/units';

export interface CardClaim {
  readonly payment: string;
  readonly state: string;
  /** Minor units. */
  readonly amount: number;
}

/** What the acquirer has. */
export interface CardFound {
  readonly state: string;
  readonly amount: number;
}

/** The claim in an entry; null in one that makes none, such as that nobody has been asked yet. */
export function cardClaim(entry: KnownEntry): CardClaim | null {
  if (entry.kind === 'payment.result') {
    const { payment, state, amount } = entry.body;
    return { payment, state, amount };
  }
  if (entry.kind !== 'payment.taken') return null;
  const { card, charge, surcharge, tip } = entry.body;
  if (card === null || card.state === 'deferred') return null;
  return { payment: entry.id, state: card.state, amount: sum([charge, surcharge, tip]) };
}

/** Came to nothing: what the acquirer never heard of did as well. */
const NOTHING = new Set(['declined', 'cancelled']);

/**
 * Whether it is, or was, as claimed. Money that was taken may have been given back since, and what was held
 * may have been taken or released; whether that was allowed, the entries that say so are judged by.
 * @param found Null where the acquirer knows no such payment.
 */
export function isBorneOut({ state, amount }: CardClaim, found: CardFound | null): boolean {
  if (found === null) return NOTHING.has(state);
  switch (state) {
    case 'captured':
      return (found.state === 'captured' && found.amount === amount) || found.state === 'reversed';
    case 'authorised':
      return (
        (found.state === 'authorised' && found.amount === amount) ||
        (found.state === 'captured' && found.amount <= amount) ||
        found.state === 'released' ||
        found.state === 'reversed'
      );
    case 'expired':
      return found.state === 'authorised' || found.state === 'released';
    case 'reversed':
    case 'released':
      return found.state === state;
    default:
      return NOTHING.has(found.state);
  }
}

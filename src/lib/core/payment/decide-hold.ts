/** What becomes of money that a card holds: a command. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import type { CardPayment } from './card-state';

/** @param amount Minor units that are taken; 0 lets go of all of it. */
export const decideHold = (
  newId: () => string,
  { id, event }: Pick<CardPayment, 'id' | 'event'>,
  does: 'capture' | 'release',
  amount: number,
): Draft => draft('hold.decided', newId(), event, { payment: id, does, amount });

/** A card that was typed in takes the place of one at the reader: sealed at once, and forgotten. */
import type { SealedCard } from '../../core/payment/keyed-card';
import type { CardReader } from './card-reader';
import { seal } from './seal';

/**
 * @param outcome What a practice card does at the stand-in; a real acquirer knows nothing of it.
 */
export function keyedReader(
  key: JsonWebKey,
  card: SealedCard,
  { scheme, last4, outcome }: { scheme: string; last4: string; outcome?: string },
): CardReader {
  // What fits into the seal: of the address, what the acquirer checks.
  const { address, holder: _holder, ...figures } = card;
  const { postcode, country } = address;
  const said = { ...figures, scheme, postcode, country, entry: 'keyed' };
  return {
    name: 'Typed in',
    isHere: false,
    read: async (amount) => ({
      is: 'card',
      scheme,
      last4,
      entry: 'keyed',
      shown: amount,
      sealed: await seal(key, outcome === undefined ? said : { ...said, outcome }),
    }),
  };
}

/**
 * A reader for practice: a panel at the side takes the place of a hand with a card. What the card does
 * at the acquirer’s stand-in stands in what is sealed.
 */
import type { CardRead, CardReader, ReaderOutcome } from './card-reader';
import { seal } from './seal';

export interface PracticeCard {
  readonly entry: CardRead['entry'];
  /** `approve`, `decline:reason` or `partial:minor units`, for the stand-in. */
  readonly outcome: string;
}

/** Made up; it leads to nobody’s account. */
const CARD = { scheme: 'Visa', number: '4000000000004471' };

interface Waiting {
  readonly amount: number;
  readonly answer: (outcome: ReaderOutcome) => void;
}

export class PracticeReader implements CardReader {
  readonly name = 'Practice reader';
  #waiting = $state.raw<Waiting | null>(null);

  constructor(readonly key: JsonWebKey) {}

  /** Minor units that it asks a card for, or null while it asks for none. */
  get asksFor(): number | null {
    return this.#waiting?.amount ?? null;
  }

  read(amount: number, _currency: string, signal: AbortSignal): Promise<ReaderOutcome> {
    return new Promise((resolve) => {
      const answer = (outcome: ReaderOutcome): void => {
        this.#waiting = null;
        resolve(outcome);
      };
      this.#waiting = { amount, answer };
      signal.addEventListener('abort', () => answer({ is: 'cancelled' }));
    });
  }

  /** Somebody holds a card to it. */
  async hold({ entry, outcome }: PracticeCard): Promise<void> {
    const waiting = this.#waiting;
    if (waiting === null) return;
    const sealed = await seal(this.key, { ...CARD, entry, outcome });
    waiting.answer({
      is: 'card',
      scheme: CARD.scheme,
      last4: CARD.number.slice(-4),
      entry,
      sealed,
    });
  }

  /** What goes wrong before anybody is asked. */
  fail(is: Exclude<ReaderOutcome['is'], 'card'>): void {
    this.#waiting?.answer({ is });
  }
}

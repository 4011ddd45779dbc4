/**
 * A reader for practice: a panel at the side takes the place of a hand with a card. What the card does
 * at the acquirer’s stand-in stands in what is sealed.
 */
import type { OfferedTip } from '../../core/payment/tip';
import type { CardRead, CardReader, ReaderOutcome, TipAnswer } from './card-reader';
import { seal } from './seal';

export interface PracticeCard {
  readonly entry: CardRead['entry'];
  /** `approve`, `decline:reason` or `partial:minor units`, for the stand-in. */
  readonly outcome: string;
  /** Minor units by which what it shows differs from what it was asked for. */
  readonly showsOff?: number;
}

/** Made up; it leads to nobody’s account. */
const CARD = { scheme: 'Visa', number: '4000000000004471' };

interface Waiting {
  readonly amount: number;
  readonly answer: (outcome: ReaderOutcome) => void;
}

interface AsksTip {
  readonly amount: number;
  readonly offered: readonly OfferedTip[];
  readonly answer: (tip: TipAnswer) => void;
}

/** Also when it was stopped before it began. */
function whenStopped(signal: AbortSignal, stop: () => void): void {
  if (signal.aborted) stop();
  else signal.addEventListener('abort', stop);
}

export class PracticeReader implements CardReader {
  readonly name = 'Practice reader';
  readonly isHere = true;
  #waiting = $state.raw<Waiting | null>(null);
  #asksTip = $state.raw<AsksTip | null>(null);

  constructor(readonly key: JsonWebKey) {}

  /** Whether it looks for a card: one that is held to it before that is not seen. */
  get isReading(): boolean {
    return this.#waiting !== null;
  }

  /** What its display offers as a tip, or null while it asks for none. */
  get tips(): readonly OfferedTip[] | null {
    return this.#asksTip?.offered ?? null;
  }

  askTip(amount: number, offered: readonly OfferedTip[], signal: AbortSignal): Promise<TipAnswer> {
    return new Promise((resolve) => {
      const answer = (tip: TipAnswer): void => {
        this.#asksTip = null;
        resolve(tip);
      };
      this.#asksTip = { amount, offered, answer };
      whenStopped(signal, () => answer(null));
    });
  }

  /** The customer touches a tip, or stops there. */
  tip(given: TipAnswer): void {
    this.#asksTip?.answer(given);
  }

  read(amount: number, _currency: string, signal: AbortSignal): Promise<ReaderOutcome> {
    return new Promise((resolve) => {
      const answer = (outcome: ReaderOutcome): void => {
        this.#waiting = null;
        resolve(outcome);
      };
      this.#waiting = { amount, answer };
      whenStopped(signal, () => answer({ is: 'cancelled' }));
    });
  }

  /** Somebody holds a card to it. */
  async hold({ entry, outcome, showsOff = 0 }: PracticeCard): Promise<void> {
    const waiting = this.#waiting;
    if (waiting === null) return;
    const sealed = await seal(this.key, { ...CARD, entry, outcome });
    waiting.answer({
      is: 'card',
      scheme: CARD.scheme,
      last4: CARD.number.slice(-4),
      entry,
      sealed,
      shown: waiting.amount + showsOff,
    });
  }

  /** What goes wrong before anybody is asked. */
  fail(is: Exclude<ReaderOutcome['is'], 'card'>): void {
    this.#waiting?.answer({ is });
  }
}

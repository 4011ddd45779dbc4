/** Money that goes onto a card that is there: the reader is asked for one, and nothing is given before it has read it. */
import type { BodyOf } from '$lib/core/daybook/kinds';
import type { CardReader } from '$lib/device/cards/card-reader';
import { newId } from '$lib/device/new-id';
import { READER_SAYS } from '$lib/ui/words/payment-words';
import type { MoneyWords } from '$lib/ui/words/money-words';

type Onto = NonNullable<BodyOf<'refund.made'>['money']['card']>;

export class OntoCard {
  /** Minor units that the reader asks a card for; null while it does not. */
  asking = $state<number | null>(null);
  #stop: AbortController | null = null;

  /** @returns The card, or why nothing goes onto one. @param amount Minor units. */
  async read(reader: CardReader, amount: number, money: MoneyWords): Promise<Onto | string> {
    const stop = new AbortController();
    [this.#stop, this.asking] = [stop, amount];
    const read = await reader.read(amount, money.currency, stop.signal, 'give');
    this.asking = null;
    // Stopped just as a card was held to it: nobody has been asked for anything.
    if (stop.signal.aborted) return nothing(READER_SAYS.cancelled);
    if (read.is !== 'card') return nothing(READER_SAYS[read.is]);
    if (read.shown !== amount)
      return nothing(`the reader showed ${money.text(read.shown)} and not ${money.text(amount)}`);
    const { scheme, last4, entry, sealed } = read;
    if (entry === 'keyed' || entry === 'file') return nothing('no card was there');
    return { refund: newId(), scheme, last4, entry, sealed };
  }

  /** Asks for no card any more. */
  stop(): void {
    this.#stop?.abort();
  }
}

const nothing = (why: string): string => `Nothing was given back: ${why}.`;

/**
 * A card at the reader, from being asked for to being a part of the payment. It is written down before
 * the reader asks, so that whatever dies in between, what was charged is found and undone or kept.
 */
import { toast } from 'svelte-sonner';
import { draft } from '$lib/core/daybook/kinds';
import type { Carry } from '$lib/core/books/tables';
import { carriedBy, carryRefusal, type Carried, type CarryRefusal } from '$lib/core/payment/carry';
import { afterAsking, closedCard } from '$lib/core/payment/card-answers';
import { cardAnswerSchema, type CardAnswer } from '$lib/core/payment/card-messages';
import { mustSign, type Signature } from '$lib/core/payment/signature';
import { offeredTips } from '$lib/core/payment/tip';
import type { WayToPay } from '$lib/core/payment/ways';
import { fixedFor, partLacks } from '$lib/core/sale/take-part';
import type { PaidPart } from '$lib/core/slip/open-slip';
import { cardLock } from '$lib/device/cards/card-errands';
import type { CardRead, CardReader } from '$lib/device/cards/card-reader';
import { newId, newSalt } from '$lib/device/new-id';
import { READER_SAYS } from '$lib/ui/words/payment-words';
import { refusalWords } from '$lib/ui/words/refusal-words';
import type { Stall } from '../../stall.svelte';
import type { Paying } from './paying.svelte';
import { faultWords } from '$lib/ui/words/fault-words';

/** Where it stands; each has its words on the screen. */
export type CardStep =
  | { readonly at: 'rest'; readonly says: string }
  /** The reader asks for a tip, on top of this. */
  | { readonly at: 'tip'; readonly amount: number }
  | { readonly at: 'reader'; readonly amount: number }
  | { readonly at: 'asking'; readonly amount: number }
  /** Nobody answers: ask again, carry it, or leave it. Nothing is charged twice by any of it. */
  | {
      readonly at: 'no answer';
      readonly amount: number;
      readonly refusal: CarryRefusal | null;
      readonly carried: Carried;
      /** What it may carry; null where it takes none. */
      readonly limits: Carry | null;
      /** Why there is no answer, where somebody says so. */
      readonly says: string;
    }
  /** It is good, and has to be signed for before it is a part. */
  | { readonly at: 'sign'; readonly amount: number };

type Card = NonNullable<PaidPart['card']>;

interface Asked {
  readonly payment: string;
  readonly way: WayToPay;
  /** Cleared on the card side. */
  readonly clears: number;
  /** In all, and the tip in it. */
  readonly amount: number;
  readonly tip: number;
  readonly read: CardRead;
  /** The customer is here and can sign. */
  readonly isHere: boolean;
  readonly how: HowAsked;
}

/** How a card is asked for; a card at the reader is simply taken. */
export interface HowAsked {
  /** False holds the money, to be taken later. */
  readonly capture?: boolean;
  /** An approval code that was given by voice. */
  readonly voice?: string;
  /** Why it cannot be carried, however little it is: typed in without such a code, or on file. */
  readonly neverCarried?: Extract<CarryRefusal['code'], 'carry/needs-voice' | 'carry/on-file'>;
  readonly reference?: string;
}

const REST: CardStep = { at: 'rest', says: '' };

export class CardSteps {
  step = $state.raw<CardStep>(REST);
  #asked: Asked | null = null;
  #sign: ((signature: Signature) => Promise<void>) | null = null;
  #stop: AbortController | null = null;
  /** It is being taken as a part: nothing can be left any more. */
  #isWriting = false;
  #release: () => void = () => undefined;

  constructor(
    readonly stall: Stall,
    readonly paying: Paying,
  ) {}

  get isUnderWay(): boolean {
    return this.step.at !== 'rest';
  }

  /** Asks the reader for a card, and the acquirer whether it is good. */
  async begin(
    way: WayToPay,
    clears: number,
    reader: CardReader,
    how: HowAsked = {},
  ): Promise<void> {
    const { stall, paying } = this;
    const event = stall.event;
    if (this.isUnderWay || paying.charge(way, clears) === null || event === undefined) return;
    // It comes to what the card is asked for, whatever becomes of the set-up meanwhile.
    const { business: pricing, taxes } = stall;
    stall.slip.say({ fixed: fixedFor({ slip: stall.slip.current, pricing, taxes, event }) });
    const would = paying.charge(way, clears);
    if (would === null) return;
    const lacks = partLacks({
      way,
      slip: stall.slip.current,
      drawer: null,
      reference: how.reference ?? '',
    });
    if (lacks !== null) {
      this.#rest(refusalWords(lacks, stall.money));
      return;
    }
    const stop = new AbortController();
    this.#stop = stop;
    const payment = newId();
    const untipped = would.charge + would.surcharge;
    // Said before anything is waited for: a second tap finds it under way.
    this.step = { at: 'reader', amount: untipped + paying.tip };
    const isStopped = (): boolean => stop.signal.aborted;
    if (!(await this.#askTip(untipped, reader, stop.signal)) || isStopped()) {
      this.#rest('Nothing was charged: the payment was stopped at the reader.');
      return;
    }
    const { tip } = paying;
    const amount = untipped + tip;
    this.step = { at: 'reader', amount };
    await this.#hold(payment);
    try {
      const body = { payment, slip: stall.slip.current.id, way: way.id, amount };
      await stall.daybook.append(() => ({
        ok: true,
        drafts: [draft('payment.asked', newId(), event.id, body)],
      }));
      const read = await reader.read(amount, stall.money.currency, stop.signal);
      // Stopped just as a card was held to it: the acquirer has not been asked.
      if (isStopped() || read.is !== 'card') {
        const is = read.is === 'card' ? 'cancelled' : read.is;
        await this.#close(payment, 'cancelled', READER_SAYS[is]);
        return;
      }
      if (read.shown !== amount) {
        const { money } = stall;
        const why = `the reader showed ${money.text(read.shown)} and not ${money.text(amount)}`;
        await this.#close(payment, 'cancelled', why);
        return;
      }
      this.#asked = { payment, way, clears, amount, tip, read, isHere: reader.isHere, how };
      await this.ask();
    } catch (error) {
      this.#rest(`Nothing was taken: ${faultWords(error)}`);
    }
  }

  /**
   * Where the business has its reader ask for tips, and none has been given yet.
   * @returns False if the customer stopped there.
   */
  async #askTip(amount: number, reader: CardReader, signal: AbortSignal): Promise<boolean> {
    const { slip, business } = this.stall;
    const { tips } = business;
    const isAsked = tips?.isOnReader === true && slip.current.tip === undefined;
    if (!isAsked || reader.askTip === undefined || slip.quote === null) return true;
    this.step = { at: 'tip', amount };
    const tip = await reader.askTip(amount, offeredTips(slip.quote.cash, tips), signal);
    if (tip !== null && tip > 0) slip.say({ tip });
    return tip !== null;
  }

  /** Stops asking for a card. */
  stop(): void {
    this.#stop?.abort();
  }

  /** Asks the acquirer, again under the same reference if nobody answered before. */
  async ask(): Promise<void> {
    const asked = this.#asked;
    if (asked === null) return;
    this.step = { at: 'asking', amount: asked.amount };
    try {
      await this.#askAcquirer(asked);
    } catch (error) {
      // What may have been charged is undone by itself; the panel must not stand in the way.
      this.#rest(`${LEFT} ${faultWords(error)}`);
    }
  }

  async #askAcquirer(asked: Asked): Promise<void> {
    const { payment, amount, read, how } = asked;
    const body = {
      payment,
      amount,
      currency: this.stall.money.currency,
      sealed: read.sealed,
      customer: read.customer ?? null,
      capture: how.capture ?? true,
      voice: how.voice ?? '',
    };
    const answer = await this.stall.transport.ask('/api/cards/payments', cardAnswerSchema, body);
    // Left meanwhile: whatever came of it is undone.
    if (this.#asked !== asked) return;
    if (answer.came === 'answer') await this.#answered(asked, answer.answer);
    // No refusal is about this very payment: what came of it, if it was asked before, nobody has said.
    else await this.#unanswered(asked, answer.came === 'refusal' ? answer.refusal.message : '');
  }

  /** Takes it with no network: it is sent later under the same reference. */
  async carry(lentBy?: string): Promise<void> {
    const asked = this.#asked;
    if (asked === null || this.step.at !== 'no answer') return;
    const isOverLimit = this.step.refusal !== null;
    const { scheme, last4, entry, sealed } = asked.read;
    const voice = asked.how.voice ?? '';
    const card = { scheme, last4, entry, sealed, voice, state: 'deferred', isOverLimit } as const;
    await this.#take(asked, { ...card, approval: '', acquirer: '', expires: '' }, lentBy);
  }

  /** Leaves it. Whatever may have come of it is undone once the acquirer answers. */
  leave(): void {
    this.#rest(LEFT);
  }

  /** The seller goes to another page: nobody is here to see what comes of it, so it is left. */
  goneFrom(): void {
    if (!this.isUnderWay || this.#isWriting) return;
    this.stop();
    this.leave();
    toast(LEFT);
  }

  async #answered(asked: Asked, answer: CardAnswer): Promise<void> {
    const next = afterAsking(asked.amount, answer);
    if (next.then === 'close') {
      await this.#close(asked.payment, 'declined', next.reason);
    } else if (next.then === 'leave') {
      const part = this.stall.money.text(next.approved);
      this.#rest(
        `Only ${part} was approved, and that is undone. Take ${part} as a part of its own.`,
      );
    } else {
      const { approval, acquirer } = answer;
      const expires = next.state === 'authorised' ? answer.expires : '';
      const { scheme, last4, entry } = asked.read;
      const said = { scheme, last4, entry, approval, acquirer, state: next.state } as const;
      await this.#take(asked, { ...said, expires, sealed: '', voice: '', isOverLimit: false });
    }
  }

  /** The customer has signed for it. */
  async signed(signature: Signature): Promise<void> {
    const sign = this.#sign;
    this.#sign = null;
    await sign?.(signature);
  }

  /** Takes it as a part, once it has been signed for where it has to be. */
  async #take(asked: Asked, card: Omit<Card, 'isSigned'>, lentBy?: string): Promise<void> {
    if (asked.isHere && mustSign(this.stall.business, asked.amount)) {
      this.#sign = async (signature) => {
        await this.#write(asked, { ...card, isSigned: true }, lentBy, signature);
      };
      this.step = { at: 'sign', amount: asked.amount };
    } else {
      await this.#write(asked, { ...card, isSigned: false }, lentBy);
    }
  }

  async #write(asked: Asked, card: Card, lentBy?: string, signature?: Signature): Promise<void> {
    const { way, clears, payment } = asked;
    const { reference = '' } = asked.how;
    const said = {
      id: payment,
      card,
      reference,
      asked: asked.amount,
      tip: asked.tip,
      ...(lentBy === undefined ? {} : { lentBy }),
      ...(signature === undefined ? {} : { payer: { signature, name: '', salt: newSalt() } }),
    };
    this.#isWriting = true;
    const taken = await this.paying.take(way, clears, said);
    this.#isWriting = false;
    // Written down or not, the reference knows: what was charged and not taken is undone by itself.
    this.#rest(taken?.ok === true ? '' : (this.paying.wrong ?? ''));
  }

  async #unanswered(asked: Asked, says: string): Promise<void> {
    const { stall } = this;
    const rows = await stall.db.books.cardPayments
      .where('device')
      .equals(stall.identity.device)
      .toArray();
    const carried = carriedBy(rows, stall.identity.device);
    const limit = carryRefusal(stall.business.carry, carried, asked.amount, Date.now());
    const { neverCarried } = asked.how;
    const refusal = neverCarried === undefined ? limit : { code: neverCarried };
    const { carry: limits } = stall.business;
    this.step = { at: 'no answer', amount: asked.amount, refusal, carried, limits, says };
  }

  /** It came to nothing, for certain. */
  async #close(payment: string, state: 'declined' | 'cancelled', reason: string): Promise<void> {
    const body = closedCard(payment, state, reason);
    await this.stall.daybook.append(() => ({
      ok: true,
      drafts: [draft('payment.result', newId(), this.stall.event?.id ?? null, body)],
    }));
    this.#rest(`Nothing was charged: ${body.reason}.`);
  }

  #rest(says: string): void {
    const { slip } = this.stall;
    if (!slip.isPartPaid && slip.current.fixed !== undefined) slip.say({ fixed: undefined });
    this.#asked = null;
    this.#sign = null;
    this.#stop = null;
    this.step = { at: 'rest', says };
    this.#release();
  }

  /** The payment is this window's own business until it rests: nobody does its errands meanwhile. */
  #hold(payment: string): Promise<void> {
    return new Promise((resolve) => {
      const rested = new Promise<void>((release) => (this.#release = release));
      navigator.locks
        .request(cardLock(payment), () => {
          resolve();
          return rested;
        })
        .catch(() => resolve());
    });
  }
}

const LEFT = 'The card was left. If it was charged after all, that is undone by itself.';

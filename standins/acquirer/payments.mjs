/** What the acquirer's stand-in knows of payments: no network, no disk, no clock of its own. */

const HOLD = 7 * 86_400_000;
const FEE_RATE = 175; // hundredths of a percent
const FEE_FIXED = 5; // minor units

/**
 * @typedef {'captured' | 'authorised' | 'declined' | 'cancelled' | 'reversed' | 'released' | 'credited'} State
 * @typedef {object} Payment
 * @property {string} id
 * @property {string} reference Chosen by whoever asks; the same one is the same payment for ever.
 * @property {State} state
 * @property {number} asked Minor units.
 * @property {number} amount Minor units that were approved, taken or held.
 * @property {number} refunded Minor units.
 * @property {readonly { id: string, amount: number, at: string }[]} [refunds] One by one.
 * @property {string} currency
 * @property {string} approval
 * @property {string} reason
 * @property {string} scheme
 * @property {string} last4
 * @property {string} at ISO 8601
 * @property {string} expires ISO 8601, for what is only held.
 * @property {boolean} [isCredit] Money that went onto a card that had paid for nothing.
 * @property {boolean} [chargedBack]
 * @property {boolean} [declinedLate]
 *
 * @typedef {{ status: number, body: object }} Answer
 * @typedef {object} Card What was sealed, or is on file.
 * @property {string} [number]
 * @property {string} [scheme]
 * @property {string} [expiry]
 * @property {string} [outcome]
 */

export class Payments {
  /** @type {Map<string, Payment>} By reference. */
  all = new Map();
  /** @type {Set<string>} */
  #voiceCodes = new Set();

  /**
   * @param {object} surroundings
   * @param {() => number} surroundings.now Milliseconds since 1970.
   * @param {() => string} surroundings.newId
   * @param {(digits: number) => string} surroundings.code So many figures.
   * @param {(payment: Payment) => void} surroundings.keep Before anybody hears of it.
   */
  constructor({ now, newId, code, keep }) {
    this.now = now;
    this.newId = newId;
    this.code = code;
    this.write = keep;
  }

  /** @param {Payment} payment */
  #keep(payment) {
    this.all.set(payment.reference, payment);
    this.write(payment);
    return { status: 200, body: payment };
  }

  /**
   * @param {{ reference?: unknown, amount?: unknown, currency?: unknown, capture?: boolean, voice?: string }} asked
   * @param {Card | null} card Null if there is none.
   * @param {string} whyNone
   * @returns {Answer}
   */
  authorise(
    { reference, amount, currency, capture = true, voice = '' },
    card,
    whyNone = 'the card could not be read',
  ) {
    if (typeof reference !== 'string' || !Number.isSafeInteger(amount) || Number(amount) <= 0)
      return refusal(422, 'wrong', 'reference and amount are needed');
    const asked = Number(amount);
    const known = this.all.get(reference);
    if (known) {
      const isSame =
        known.state === 'cancelled' || (known.asked === asked && known.currency === currency);
      return isSame
        ? { status: 200, body: known }
        : refusal(409, 'other', 'that reference is of another payment');
    }
    const plain = {
      ...this.#ofCard(reference, asked, currency, card),
      expires: new Date(this.now() + HOLD).toISOString(),
    };
    /** @param {string} reason */
    const declined = (reason) => this.#keep({ ...plain, state: 'declined', reason });
    if (card === null) return declined(whyNone);
    if (voice !== '' && !this.#voiceCodes.has(voice))
      return declined('that voice approval is not known');
    const outcome = card.outcome ?? 'approve';
    if (outcome.startsWith('decline')) return declined(outcome.slice(8) || 'declined by the bank');
    const most = outcome.startsWith('partial') ? Number(outcome.slice(8)) : asked;
    if (most <= 0) return declined('nothing left on the card');
    return this.#keep({
      ...plain,
      state: capture ? 'captured' : 'authorised',
      amount: Math.min(most, asked),
      approval: this.code(6),
    });
  }

  /** @param {string} reference @param {number} asked @param {unknown} currency @param {Card | null} card */
  #ofCard(reference, asked, currency, card) {
    return {
      ...this.#blank(reference),
      asked,
      currency: String(currency),
      scheme: card?.scheme ?? '',
      last4: (card?.number ?? '').slice(-4),
    };
  }

  /** @param {string} reference @returns {Payment} */
  #blank(reference) {
    const at = new Date(this.now()).toISOString();
    return {
      id: this.newId(),
      reference,
      state: 'cancelled',
      asked: 0,
      amount: 0,
      refunded: 0,
      currency: '',
      approval: '',
      reason: '',
      scheme: '',
      last4: '',
      at,
      expires: at,
    };
  }

  /**
   * Undoes whatever there is of a reference, also before anything has arrived under it: what comes
   * later is refused.
   * @param {string} reference @returns {Answer}
   */
  cancel(reference) {
    const known = this.all.get(reference);
    if (!known)
      return this.#keep({ ...this.#blank(reference), reason: 'cancelled before it came' });
    if (known.state === 'captured' || known.state === 'authorised')
      return this.#keep({ ...known, state: 'reversed', refunded: known.amount });
    return { status: 200, body: known };
  }

  /** @param {string} reference @returns {Answer} */
  find(reference) {
    const known = this.all.get(reference);
    return known ? { status: 200, body: known } : unknown();
  }

  /** Takes what is held, or less of it. @param {string} reference @param {number} amount @returns {Answer} */
  capture(reference, amount) {
    const known = this.all.get(reference);
    if (!known) return unknown();
    if (known.state === 'captured') return { status: 200, body: known };
    const isHeld = known.state === 'authorised' && Date.parse(known.expires) > this.now();
    if (!isHeld || !(amount > 0) || amount > known.amount)
      return refusal(409, 'not held', 'that cannot be taken');
    return this.#keep({ ...known, state: 'captured', amount });
  }

  /** @param {string} reference @returns {Answer} */
  release(reference) {
    const known = this.all.get(reference);
    if (!known) return unknown();
    if (known.state !== 'authorised') return { status: 200, body: known };
    return this.#keep({ ...known, state: 'released', amount: 0 });
  }

  /**
   * Gives back, once for every id.
   * @param {string} reference @param {string} id @param {number} amount @returns {Answer}
   */
  refund(reference, id, amount) {
    const known = this.all.get(reference);
    if (!known) return unknown();
    const done = known.refunds ?? [];
    if (done.some((each) => each.id === id)) return { status: 200, body: known };
    if (known.state === 'authorised') return refusal(409, 'not yet', 'it is only held so far');
    if (known.state !== 'captured') return refusal(409, 'not taken', 'nothing was taken of it');
    if (!Number.isSafeInteger(amount) || amount <= 0 || known.refunded + amount > known.amount)
      return refusal(409, 'too much', 'that is more than is left of what was taken');
    const at = new Date(this.now()).toISOString();
    return this.#keep({
      ...known,
      refunded: known.refunded + amount,
      refunds: [...done, { id, amount, at }],
    });
  }

  /**
   * Gives money onto a card that had paid for nothing, once for every reference.
   * @param {{ reference?: unknown, amount?: unknown, currency?: unknown }} asked
   * @param {Card | null} card Null if there is none.
   * @param {string} whyNone
   * @returns {Answer}
   */
  credit({ reference, amount, currency }, card, whyNone = 'The card could not be read.') {
    if (typeof reference !== 'string' || !Number.isSafeInteger(amount) || Number(amount) <= 0)
      return refusal(422, 'wrong', 'reference and amount are needed');
    const asked = Number(amount);
    const known = this.all.get(reference);
    if (known) {
      const isSame =
        known.isCredit === true && known.asked === asked && known.currency === currency;
      return isSame
        ? { status: 200, body: known }
        : refusal(409, 'other', 'That reference is of something else.');
    }
    const plain = { ...this.#ofCard(reference, asked, currency, card), isCredit: true };
    if (card === null) return this.#keep({ ...plain, state: 'declined', reason: whyNone });
    const outcome = card.outcome ?? 'approve';
    if (outcome.startsWith('decline')) {
      const reason = outcome.slice(8) || 'declined by the bank';
      return this.#keep({ ...plain, state: 'declined', reason });
    }
    const refunds = [{ id: reference, amount: asked, at: plain.at }];
    return this.#keep({ ...plain, state: 'credited', refunded: asked, refunds });
  }

  /** An approval as given by telephone. */
  voice() {
    const code = `V${this.code(5)}`;
    this.#voiceCodes.add(code);
    return { status: 200, body: { code } };
  }

  /**
   * What happened on a day, line by line, with what is paid out for it on the next: payments, what went back, and
   * what was said of it on command. The same line has the same id for ever.
   * @param {string} day ISO date.
   */
  report(day) {
    const payout = `PO-${day.replaceAll('-', '')}`;
    const next = new Date(Date.parse(`${day}T00:00:00Z`) + 86_400_000).toISOString().slice(0, 10);
    const back = [...this.all.values()].flatMap(({ reference, scheme, last4, refunds = [] }) =>
      refunds
        .filter(({ at }) => at.startsWith(day))
        .map(({ id, amount, at }) => ({
          ...{ reference, scheme, last4, at, payout, payoutDay: next },
          ...{ id: `${id}-back`, sort: 'refund', amount: -amount, fee: 0 },
        })),
    );
    const lines = [...this.all.values()]
      .filter(({ at }) => at.startsWith(day))
      .flatMap((payment) => {
        const { id, reference, at, amount, refunded, scheme, last4, state } = payment;
        const plain = { reference, scheme, last4, at, payout, payoutDay: next };
        if (payment.declinedLate === true)
          return [{ ...plain, id: `${id}-decline`, sort: 'decline', amount: 0, fee: 0 }];
        const charged = state === 'captured' || (state === 'reversed' && amount > 0);
        const fee = charged ? Math.round((amount * FEE_RATE) / 10_000) + FEE_FIXED : 0;
        return [
          ...(charged ? [{ ...plain, id, sort: 'payment', amount, fee }] : []),
          // What was undone as a whole; what went back one by one stands below.
          ...(refunded > 0 && state === 'reversed'
            ? [{ ...plain, id: `${id}-back`, sort: 'refund', amount: -refunded, fee: 0 }]
            : []),
          ...(payment.chargedBack
            ? [{ ...plain, id: `${id}-dispute`, sort: 'chargeback', amount: -amount, fee: 1500 }]
            : []),
        ];
      });
    return { source: 'practice acquirer', lines: [...lines, ...back] };
  }

  /** A cardholder disputes a payment: it is taken back. @param {string} reference @returns {Answer} */
  dispute(reference) {
    const known = this.all.get(reference);
    if (!known) return unknown();
    return this.#keep({ ...known, chargedBack: true });
  }

  /** The bank behind the card says no after all, days later: nothing comes of it. @param {string} reference @returns {Answer} */
  declineLate(reference) {
    const known = this.all.get(reference);
    if (!known) return unknown();
    return this.#keep({ ...known, declinedLate: true });
  }

  /** What is paid out for a day, with the fee of each, as CSV. @param {string} day ISO date. */
  settlement(day) {
    const lines = [...this.all.values()]
      .filter(
        ({ state, at, declinedLate }) =>
          state === 'captured' && at.startsWith(day) && declinedLate !== true,
      )
      .map(({ reference, id, at, amount, currency, scheme, last4 }) => {
        const fee = Math.round((amount * FEE_RATE) / 10_000) + FEE_FIXED;
        return [id, reference, at, scheme, last4, amount, fee, amount - fee, currency].join(',');
      });
    return ['id,reference,at,scheme,last4,amount,fee,net,currency', ...lines, ''].join('\r\n');
  }
}

/** @param {number} status @param {string} code @param {string} message @returns {Answer} */
const refusal = (status, code, message) => ({ status, body: { code, message } });
const unknown = () => refusal(404, 'unknown', 'there is no such payment');

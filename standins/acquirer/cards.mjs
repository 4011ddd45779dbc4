/** Cards that the acquirer's stand-in keeps on file, by the customer they are of. */

/**
 * @typedef {import('./payments.mjs').Card} Card
 * @typedef {import('./payments.mjs').Answer} Answer
 * @typedef {object} Kept
 * @property {string} customer As the business calls them; each has one card at most.
 * @property {string} token
 * @property {string} scheme
 * @property {string} last4
 * @property {string} expiry YYYY-MM
 * @property {string} outcome What it does when it is charged.
 */

export class Cards {
  /** @type {Map<string, Kept>} By customer. */
  all = new Map();

  /**
   * @param {object} surroundings
   * @param {() => string} surroundings.newToken
   * @param {(line: { kept: Kept } | { forgotten: string }) => void} surroundings.write
   */
  constructor({ newToken, write }) {
    this.newToken = newToken;
    this.write = write;
  }

  /** In place of the one before. @param {string} customer @param {Card | null} card @returns {Answer} */
  keep(customer, card) {
    if (card === null || typeof card.number !== 'string' || typeof card.expiry !== 'string')
      return { status: 409, body: { code: 'card', message: 'the card could not be read' } };
    const { scheme = '', expiry, outcome = 'approve' } = card;
    const last4 = card.number.slice(-4);
    const kept = { customer, token: this.newToken(), scheme, last4, expiry, outcome };
    this.all.set(customer, kept);
    this.write({ kept });
    return { status: 200, body: { token: kept.token, scheme, last4, expiry } };
  }

  /** @param {string} customer @returns {Answer} */
  forget(customer) {
    if (this.all.delete(customer)) this.write({ forgotten: customer });
    return { status: 200, body: {} };
  }

  /** @param {string} token @returns {Card | null} */
  find(token) {
    const kept = [...this.all.values()].find((each) => each.token === token);
    return kept ? { ...kept, number: kept.last4 } : null;
  }
}

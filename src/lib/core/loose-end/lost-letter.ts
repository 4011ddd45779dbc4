/** A letter or a message that the server was asked to send and that nobody took. */
export interface LostLetter {
  readonly looseEnd: string;
  /** What it was, or by which way a receipt was to go. */
  readonly way: 'email' | 'text' | 'invoice' | 'reminder' | 'order' | 'maker';
  /** The id of the sale, the invoice, the list or the event that it was about. */
  readonly about: string;
  /** When it was asked for, as the server's clock had it; ISO 8601. */
  readonly at: string;
}

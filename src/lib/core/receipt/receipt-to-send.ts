/**
 * A receipt that is sent to an address which nobody has checked: what people typed into it, from the name
 * of the business to a note, must not make a letter of somebody else's out of it. Words stay, addresses of
 * pages and mailboxes are no links any more, and there is no more of it than a receipt has.
 */
import type { Receipt, ReceiptLine } from './receipt';

const MOST_LINES = 120;
const LONGEST = { name: 60, more: 80, block: 200 } as const;

export function receiptToSend(receipt: Receipt): Receipt {
  const { lines } = receipt;
  const shown = lines.slice(0, MOST_LINES).map((line): ReceiptLine => ({
    ...line,
    name: plainWords(line.name, LONGEST.name),
    unit: plainWords(line.unit, LONGEST.name),
    more: line.more.slice(0, 4).map((more) => plainWords(more, LONGEST.more)),
  }));
  return {
    ...receipt,
    vendor: plainWords(receipt.vendor, LONGEST.name),
    head: plainWords(receipt.head, LONGEST.block),
    foot: plainWords(receipt.foot, LONGEST.block),
    event: plainWords(receipt.event, LONGEST.name),
    seller: plainWords(receipt.seller, LONGEST.name),
    lines: shown,
    taxes: receipt.taxes.map((tax) => ({ ...tax, name: plainWords(tax.name, LONGEST.name) })),
    parts: receipt.parts.map((part) => ({
      ...part,
      name: plainWords(part.name, LONGEST.name),
      reference: plainWords(part.reference, LONGEST.name),
    })),
  };
}

/**
 * Text on one line, without control characters, in which no mail program finds an address: schemes go, the
 * dots of names of hosts are raised, and so is what stands between a mailbox and its host.
 * @example plainWords('pay at https://evil.example/x', 60) // => 'pay at evil·example/x'
 */
export function plainWords(text: string, most: number): string {
  return (
    text
      // eslint-disable-next-line no-control-regex -- just these are to go
      .replace(/[\u0000-\u001f\u007f-\u009f\u200b-\u200f\u2028-\u202e\u2060-\u2069\ufeff]+/g, ' ')
      .replace(/\b[a-z][a-z0-9+.-]{1,14}:(?=\/\/|[^\s\d])/gi, (scheme) =>
        /^(?:https?|ftp|mailto|tel|sms|javascript|data|www):$/i.test(scheme) ? '' : scheme,
      )
      .replace(/\/\//g, '')
      .replace(/(?<=[\p{L}\p{N}-])\.(?=[\p{L}\p{N}-]*\p{L})/gu, '·')
      .replace(/@/g, ' at ')
      .replace(/\s+/g, ' ')
      .trim()
      .slice(0, most)
  );
}

/** What letters say: to owners, and receipts. */
import { invoicePaper, invoiceText, type InvoiceDocument } from '../../core/invoice/invoice-paper';
import { receiptCode, type Receipt } from '../../core/receipt/receipt';
import { paperLines, plainText, type PaperWords } from '../../core/receipt/receipt-text';
import type { Mail } from '../mail/mailer';

export type Notice = 'passkey added' | 'password set' | 'device code';
/** Characters in a line of a receipt. */
const LETTERS = 44;

export type Letter = Pick<Mail, 'subject' | 'text' | 'attachments'>;

const subjects: Readonly<Record<Notice, string>> = {
  'passkey added': 'A passkey was added to your Stall Till account',
  'password set': 'Your Stall Till password was changed',
  'device code': 'A device is being added to your Stall Till',
};
const bodies: Readonly<Record<Notice, string>> = {
  'passkey added': 'A passkey was added to your account just now; it can sign in as you.',
  'password set': 'The password of your account was changed just now.',
  'device code':
    'A link was made just now that makes one more browser a till of yours. It is good for a quarter of an hour.',
};

/** Of a change to how they sign in, in case it was not them. @param origin The address of our own pages. */
export const noticeLetter = (notice: Notice, origin: string): Letter => ({
  subject: subjects[notice],
  text: [
    bodies[notice],
    '',
    `If it was you, leave this letter. If not, set another password at ${origin}/forgot`,
    `and look at ${origin}/account for passkeys and sessions that are not yours.`,
  ].join('\n'),
});

/** By which an owner shows that an address is theirs. */
export const verificationLetter = (token: string, origin: string): Letter => ({
  subject: 'Is this address yours?',
  text: [
    'Somebody, we hope you, began a stall with this address.',
    '',
    `If it was you, open this within two days: ${origin}/verify#${token}`,
    '',
    'Until then your till works, but sends no receipts. If it was not you, leave this letter.',
  ].join('\n'),
});

/** By which somebody who forgot it sets another password. */
export const resetLetter = (token: string, origin: string): Letter => ({
  subject: 'Another password for Stall Till',
  text: [
    'Somebody, we hope you, wants another password for this address.',
    '',
    `Set it here within half an hour: ${origin}/reset#${token}`,
    '',
    'The link is good once. If it was not you, leave it; nothing changes.',
  ].join('\n'),
});

/** An invoice, a payment request or a credit note. */
export const invoiceWords = (document: InvoiceDocument): Letter => {
  const { title, number } = invoicePaper(document);
  const vendor = document.vendor.name;
  return {
    subject: `${title} ${number} from ${vendor}`,
    text: [
      invoiceText(document),
      '',
      'It is attached as a PDF, and where the law has it so as a file for programs (UBL).',
      `It was sent for ${vendor}, where somebody gave this address. We know of no other account`,
      'than the one on it: if a later letter names another, ask them by telephone first.',
      '',
    ].join('\n'),
  };
};

type Told = Pick<Letter, 'subject'> & { readonly text: string };

/** An order to a supplier. */
export const orderWords = (order: Told, business: string): Letter =>
  ofTheTrade(
    order,
    `It was sent for ${business}, who has this address as a supplier's. Answers to this letter are not`,
    'read: please write or call them as you always do.',
  );

/** A maker's statement of an event. */
export const makerWords = (statement: Told, business: string): Letter =>
  ofTheTrade(
    statement,
    `It was sent for ${business}, who has this address as that of somebody whose goods they sell. Answers`,
    'to this letter are not read: please write or call them as you always do.',
  );

/** With its PDF, and below it who it is from. */
const ofTheTrade = ({ subject, text }: Told, ...from: readonly string[]): Letter => ({
  subject,
  text: [text.replaceAll('\r\n', '\n'), '', 'It is attached as a PDF.', ...from, ''].join('\n'),
});

/** The receipt of a sale. */
export const receiptLetter = (receipt: Receipt, words: PaperWords): Letter => ({
  subject: `Receipt ${receipt.number} from ${receipt.vendor}`,
  // Ours, above and below what the stall says of itself: nobody reads it as a letter of anybody else's.
  text: [
    'This is the receipt for something bought at a stall. It asks for nothing: no payment, no password,',
    'no call.',
    '',
    plainText(paperLines(receipt, words), LETTERS),
    '',
    receiptCode(receipt),
    '',
    `It was sent once, because somebody gave this address at the stall of ${receipt.vendor}.`,
    'If that was not you, leave it.',
    '',
  ].join('\n'),
});

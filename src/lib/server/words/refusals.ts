/** Every sentence that the server refuses a request with, by its code. What it says of entries is in `entry-words.ts`. */
import type { PasskeyRefusal } from '../access/passkeys';
import { LONGEST_PASSWORD, SHORTEST_PASSWORD, type PasswordRefusal } from '../access/passwords';

const passwords: Readonly<Record<PasswordRefusal['code'], string>> = {
  'password/too-short': `A password has at least ${String(SHORTEST_PASSWORD)} characters; three words of your own make a good one.`,
  'password/too-long': `A password has at most ${String(LONGEST_PASSWORD)} characters.`,
  'password/common': 'Many people use this password, or it is easily guessed; take another one.',
};

const passkeys: Readonly<Record<PasskeyRefusal['code'], string>> = {
  'passkey/wrong': 'That passkey did not show what was asked, or too late. Try once more.',
  'passkey/unknown': 'Nobody here has that passkey; sign in with e-mail and password.',
  'passkey/known': 'That passkey is here already.',
  'passkey/too-many': 'There are twenty passkeys already; remove one first.',
  'passkey/copied':
    'That passkey has been copied and is not taken any more. Sign in with the password and remove it.',
};

const sentences = {
  ...passwords,
  ...passkeys,
  'password/wrong': 'That is not the password.',
  'owner/wrong': 'E-mail address and password do not belong together.',
  'owner/unknown': 'Only an owner may do this; sign in with e-mail and password.',
  'proof/needed': 'Show first, with the password, that it is still you.',
  'email/taken': 'There is a business under this e-mail address already; sign in instead.',
  'mail/none': 'This server sends no mail; its keeper can set SMTP_URL.',
  'link/spent': 'This link has been used or has run out. Ask for another one.',

  'origin/other': 'This was asked from another site; only our own pages may ask for it.',
  'origin/unknown': 'It cannot be told that one of our own pages asks for this.',
  'route/none': 'There is nothing at this address.',
  'tries/too-many': (minutes: number) =>
    `Too many tries. The next one is looked at in ${String(minutes)} min.`,
  'server/no-database':
    'The server cannot get at its books just now. Nothing was changed; ask again in a moment.',
  'server/busy': 'Too much is waiting already; ask again in a moment.',

  'body/other-type': 'The body must be JSON, with content-type application/json.',
  'body/not-json': 'The body is not valid JSON.',
  'body/wrong': (where: string, why: string) => `${where}: ${why}`,
  'body/too-large': (most: number) =>
    `The body is too large; at most ${String(most)} bytes are read.`,
  'query/wrong': (field: string, why: string) => `${field}: ${why}`,
  'find/typed': (most: number) =>
    `Say in \`find\` what to find: a number, an amount or goods, at most ${String(most)} characters.`,

  'invoice/not-here':
    'The server does not know this invoice yet, or not how invoices are numbered; ask again once it does.',

  'code/unknown': 'This code is not known. Check it, or ask for a new one.',
  'code/expired': 'This code has run out. Ask for a new one.',
  'code/used':
    'This code has enrolled a device already. Each code is good for one; ask for a new one.',
  'device/known': 'This browser is enrolled already under another code.',
  'device/unknown': 'This device is not enrolled here; enrol it with a code.',
  'device/shut-out': 'This device has been shut out; an owner can enrol it again.',
  'device/not-shut-out': 'Only a device that has been shut out hands over what it had not sent.',
  'device/quota': 'This device has sent more than one day holds; the rest is taken tomorrow.',
  'entry/other-device': 'Each device hands over its own entries only.',
  'unsent/too-many': 'There is no room for more until an owner has looked at what is there.',

  'event/unknown': 'There is no such event.',
  'sale/unknown': 'There is no such sale.',
  'held/which': 'Name one to four accounts, such as credit: and a customer’s id.',
  'document/unknown': 'There is no such document.',
  'customer/unknown':
    'We have not heard of this customer yet. Try again once this device has sent all it has.',

  'card/no-acquirer': 'No acquirer takes cards for this server.',
  'card/no-report': 'The acquirer does not answer now; try again, or take the report in as a file.',
  'card/no-answer': 'The acquirer does not answer. Ask again: nothing is charged twice.',
  'card/not-now': (says: string) => `The acquirer says: ${says}.`,
  'card/refused': (says: string) => `The acquirer says: ${says}.`,
  'card/not-decided':
    'No entry says so yet, or none that stands. It is asked again when there is one.',
  'card/other-device': 'That card was asked for by another device.',
  'card/not-on-file':
    'This customer has no card on file, or has not agreed to it yet as far as we have heard.',
  'card/other-amount':
    'That card was asked for another amount before; ask for it as a new payment.',
  'card/overtaken':
    'Another card was put on file for this customer at the same time. Do it once more.',
} as const satisfies Readonly<Record<string, string | ((...of: never[]) => string)>>;

export type RefusalCode = keyof typeof sentences;
/** What the sentence of a code is about. */
export type About<C extends RefusalCode> = (typeof sentences)[C] extends (...of: infer A) => string
  ? A
  : [];

export function refusalSentence<C extends RefusalCode>(code: C, ...about: About<C>): string {
  const sentence = sentences[code] as string | ((...of: About<C>) => string);
  return typeof sentence === 'string' ? sentence : sentence(...about);
}

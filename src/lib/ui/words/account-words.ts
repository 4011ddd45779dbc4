/** Sentences about an owner's account, which needs the server, and about passkeys. */

export const NO_ANSWER = 'The server does not answer.';
export const ACCOUNT_NEEDS_NETWORK = `${NO_ANSWER} The account needs the network; selling does not.`;
/** No answer came, so it may have been done. */
export const shutOutUnknown = (device: number): string =>
  `${NO_ANSWER} Whether D${String(device)} is shut out is not known; try it again.`;

/** As much of what came of asking as has words. */
type Came =
  | { readonly came: 'answer' | 'nothing' }
  | { readonly came: 'refusal'; readonly refusal: { readonly message: string } };

/** What is wrong with what came of asking; nothing where it was answered. */
export function wrongOf(asked: Came): string {
  if (asked.came === 'answer') return '';
  return asked.came === 'refusal' ? asked.refusal.message : NO_ANSWER;
}

export const passkeyWords = {
  'passkey/unable': 'This browser cannot use passkeys here; the password works everywhere.',
  'passkey/known': 'This device has a passkey for the account already.',
  /** The browser says little of why, lest a page learn which keys somebody has. */
  'passkey/none': 'No passkey was used: it was called off, took too long, or there is none here.',
} as const;

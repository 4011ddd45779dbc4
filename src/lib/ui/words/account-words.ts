/** Sentences about an owner's account, which needs the server, and about passkeys. */
import { NO_ANSWER } from './answer-words';

export const ACCOUNT_NEEDS_NETWORK = `${NO_ANSWER} The account needs the network; selling does not.`;
export const ENROL_NEEDS_NETWORK = `${NO_ANSWER} Enrolling needs it this once; selling does not.`;
/** No answer came, so it may have been done. */
export const PASSKEY_UNKNOWN = 'Whether the passkey is still there is not known; try it again.';
export const shutOutUnknown = (device: number): string =>
  `Whether D${String(device)} is shut out is not known; try it again.`;

export const passkeyWords = {
  'passkey/unable': 'This browser cannot use passkeys here; the password works everywhere.',
  'passkey/known': 'This device has a passkey for the account already.',
  /** The browser says little of why, lest a page learn which keys somebody has. */
  'passkey/none': 'No passkey was used: it was called off, took too long, or there is none here.',
} as const;

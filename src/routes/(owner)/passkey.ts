/** Passkeys in the browser: asking the server what to sign, and handing over what was signed. */
import {
  browserSupportsWebAuthn,
  startAuthentication,
  startRegistration,
  type PublicKeyCredentialCreationOptionsJSON,
  type PublicKeyCredentialRequestOptionsJSON,
} from '@simplewebauthn/browser';
import { challengeSchema, doneSchema } from '$lib/core/access/account-messages';
import { askServer, type Asked } from '$lib/device/sync/ask-server';
import { NO_ANSWER } from './asked-words';

export type PasskeyCame =
  { readonly ok: true } | { readonly ok: false; readonly code: string; readonly message: string };

export async function signInWithPasskey(): Promise<PasskeyCame> {
  if (!browserSupportsWebAuthn()) return UNABLE;
  const asked = await askServer(
    { path: '/api/account/passkey/challenge', body: {}, isHarmless: true },
    challengeSchema,
  );
  if (asked.came !== 'answer') return failed(asked);
  const optionsJSON = asked.answer as unknown as PublicKeyCredentialRequestOptionsJSON;
  try {
    const body = await startAuthentication({ optionsJSON });
    return cameOf(await askServer({ path: '/api/account/passkey/sign-in', body }, doneSchema));
  } catch (error) {
    return notMade(error);
  }
}

export async function addPasskey(name: string): Promise<PasskeyCame> {
  if (!browserSupportsWebAuthn()) return UNABLE;
  const asked = await askServer(
    { path: '/api/account/passkeys/challenge', body: {}, isHarmless: true },
    challengeSchema,
  );
  if (asked.came !== 'answer') return failed(asked);
  const optionsJSON = asked.answer as unknown as PublicKeyCredentialCreationOptionsJSON;
  try {
    const passkey = await startRegistration({ optionsJSON });
    const body = { name, passkey };
    return cameOf(await askServer({ path: '/api/account/passkeys', body }, doneSchema));
  } catch (error) {
    return notMade(error);
  }
}

const UNABLE: PasskeyCame = {
  ok: false,
  code: 'passkey/unable',
  message: 'This browser cannot use passkeys here; the password works everywhere.',
};

/** The browser says little of why, lest a page learn which keys somebody has. */
function notMade(error: unknown): PasskeyCame {
  const isKnown = error instanceof Error && error.name === 'InvalidStateError';
  const message = isKnown
    ? 'This device has a passkey for the account already.'
    : 'No passkey was used: it was called off, took too long, or there is none here.';
  return { ok: false, code: isKnown ? 'passkey/known' : 'passkey/none', message };
}

const cameOf = (asked: Asked<unknown>): PasskeyCame =>
  asked.came === 'answer' ? { ok: true } : failed(asked);

const failed = (asked: Exclude<Asked<unknown>, { came: 'answer' }>): PasskeyCame =>
  asked.came === 'refusal'
    ? { ok: false, ...asked.refusal }
    : { ok: false, code: 'network/none', message: NO_ANSWER };

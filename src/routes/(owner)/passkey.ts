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
import { passkeyWords } from '$lib/ui/words/account-words';
import { wrongOf } from '$lib/ui/words/answer-words';

export type PasskeyCame =
  | { readonly ok: true }
  | { readonly ok: false; readonly code: string; readonly message: string };

export async function signInWithPasskey(): Promise<PasskeyCame> {
  if (!browserSupportsWebAuthn()) return not('passkey/unable');
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
  if (!browserSupportsWebAuthn()) return not('passkey/unable');
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

const not = (code: keyof typeof passkeyWords): PasskeyCame => ({
  ok: false,
  code,
  message: passkeyWords[code],
});

const notMade = (error: unknown): PasskeyCame =>
  not(
    error instanceof Error && error.name === 'InvalidStateError' ? 'passkey/known' : 'passkey/none',
  );

const cameOf = (asked: Asked<unknown>): PasskeyCame =>
  asked.came === 'answer' ? { ok: true } : failed(asked);

const failed = (asked: Exclude<Asked<unknown>, { came: 'answer' }>): PasskeyCame => ({
  ok: false,
  code: asked.came === 'refusal' ? asked.refusal.code : 'network/none',
  message: wrongOf(asked),
});

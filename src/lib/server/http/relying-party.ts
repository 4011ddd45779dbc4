import type { RelyingParty } from '../access/passkeys';

/** Passkeys are good for the host of the page that asks, which ORIGIN fixes. */
export const partyOf = ({ hostname, origin }: URL): RelyingParty => ({ id: hostname, origin });

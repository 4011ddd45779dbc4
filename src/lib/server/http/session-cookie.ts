/** The cookie of an owner's session: of this host alone, never seen by scripts or other sites. */
import type { Cookies } from '@sveltejs/kit';
import { KNOWN_FOR } from '../access/known-browsers';

/**
 * With the prefix the browser itself refuses it for another path, a subdomain, or without TLS. A
 * browser takes a secure cookie from its own machine without TLS as well.
 */
const NAME = '__Host-stall-till';
const NINETY_DAYS = 90 * 24 * 60 * 60;
/** Tells a browser that an owner has signed in on; it outlives the session and opens nothing. */
const KNOWN = '__Host-stall-till-known';

const options = { path: '/', httpOnly: true, secure: true, sameSite: 'strict' } as const;

const tokenIn = (cookies: Cookies, name: string): string | null => {
  const token = cookies.get(name) ?? '';
  return /^[0-9a-f]{64}$/.test(token) ? token : null;
};
export const sessionToken = (cookies: Cookies): string | null => tokenIn(cookies, NAME);
export const knownToken = (cookies: Cookies): string | null => tokenIn(cookies, KNOWN);
export const giveSession = (cookies: Cookies, token: string): void =>
  cookies.set(NAME, token, { ...options, maxAge: NINETY_DAYS });
export const dropSession = (cookies: Cookies): void => cookies.delete(NAME, options);
export const giveKnown = (cookies: Cookies, token: string): void =>
  cookies.set(KNOWN, token, { ...options, maxAge: KNOWN_FOR / 1000 });

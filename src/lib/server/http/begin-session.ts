/** Signing somebody in: a session for this browser, and that it is known from now on. */
import type { RequestEvent } from '@sveltejs/kit';
import type { AccountRef } from '../access/accounts';
import { knowBrowser } from '../access/known-browsers';
import { services } from '../services';
import { giveKnown, giveSession } from './session-cookie';

/** @returns False if the password was changed since it was shown: nobody is signed in then. */
export async function beginSession(
  { request, cookies }: Pick<RequestEvent, 'request' | 'cookies'>,
  account: AccountRef,
  now: number,
): Promise<boolean> {
  const { accounts, database } = services();
  const token = await accounts.begin(account, request.headers.get('user-agent') ?? '', now);
  if (token === null) return false;
  giveSession(cookies, token);
  giveKnown(cookies, await knowBrowser(database, account.owner, now));
  return true;
}

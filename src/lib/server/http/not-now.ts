import { TooBusyError } from '../daybook/in-turn';
import { OverQuotaError } from '../daybook/quotas';
import { refused } from './answers';

/** What is said while the database is away. */
export function noDatabase(): Response {
  const response = refused(503, 'server/no-database');
  response.headers.set('retry-after', String(SOON));
  return response;
}

const SOON = 5;
const LATER = 3600;

/**
 * What is asked too often or too much is refused for now: a device waits and asks again, and nothing is
 * lost. @throws Whatever else it is.
 */
export function notNow(error: unknown): Response {
  const isQuota = error instanceof OverQuotaError;
  if (!isQuota && !(error instanceof TooBusyError)) throw error;
  const response = refused(503, isQuota ? 'device/quota' : 'server/busy');
  response.headers.set('retry-after', String(isQuota ? LATER : SOON));
  return response;
}

import type { Refusal } from '../../core/daybook/sync-messages';

const headers = { 'content-type': 'application/json', 'cache-control': 'no-store' };

/** An answer as JSON that no cache keeps. */
export const answer = (body: unknown, status = 200): Response =>
  new Response(typeof body === 'string' ? body : JSON.stringify(body), { status, headers });

/** A refusal: what is wrong, as a code and as a sentence. */
export const refused = (status: number, refusal: Refusal): Response => answer(refusal, status);

/** What another business has answers as what nobody has. */
export const nothingHere = (): Response =>
  refused(404, { code: 'route/none', message: 'There is nothing at this address.' });

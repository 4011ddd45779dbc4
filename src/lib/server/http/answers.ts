import type { Refusal } from '../../core/daybook/sync-messages';
import { refusalSentence, type About, type RefusalCode } from '../words/refusals';

const headers = { 'content-type': 'application/json', 'cache-control': 'no-store' };

/** An answer as JSON that no cache keeps. */
export const answer = (body: unknown, status = 200): Response =>
  new Response(typeof body === 'string' ? body : JSON.stringify(body), { status, headers });

/** A refusal: what is wrong, as a code and as the sentence that it has (`words/refusals.ts`). */
export const refused = <C extends RefusalCode>(
  status: number,
  code: C,
  ...about: About<C>
): Response => refusedAs(status, { code, message: refusalSentence(code, ...about) });

/** A refusal that has been put into words elsewhere. */
export const refusedAs = (status: number, refusal: Refusal): Response => answer(refusal, status);

/** What another business has answers as what nobody has. */
export const nothingHere = (): Response => refused(404, 'route/none');

import { takeInSchema } from '$lib/core/access/account-messages';
import { aboutEntry } from '$lib/core/daybook/about-entry';
import { MOST_PUSHED } from '$lib/core/daybook/sync-messages';
import { moneyText } from '$lib/core/money/amount-text';
import { asideOf, clearAside, isDeviceOf } from '$lib/server/access/devices';
import { append } from '$lib/server/daybook/append';
import { inTurn } from '$lib/server/daybook/in-turn';
import { notNow } from '$lib/server/http/not-now';
import { answer, nothingHere, refusedAs } from '$lib/server/http/answers';
import { readBody } from '$lib/server/http/read-body';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** What a device had not sent when it was shut out, for an owner to look at. */
export const GET: RequestHandler = async ({ locals, params }) => {
  const ref = { business: locals.owner.business, device: params.id };
  const { database, books } = services();
  if (!(await isDeviceOf(database, ref))) return nothingHere();
  const entries = await asideOf(database, ref);
  const [known] = await books.rows(ref.business, 'businesses');
  const money = (amount: number): string =>
    known === undefined ? String(amount) : moneyText(amount, known.currency, known.locale);
  return answer({
    entries: entries.map((entry) => ({
      seq: entry.seq,
      at: entry.at,
      kind: entry.kind,
      by: entry.by,
      about: aboutEntry(entry, money),
    })),
  });
};

/** Takes it into the daybook up to a `seq`, or throws it away. */
export const POST: RequestHandler = async ({ request, locals, params }) => {
  const { database } = services();
  const ref = { business: locals.owner.business, device: params.id, isTakenIn: true };
  if (!(await isDeviceOf(database, ref))) return nothingHere();
  const read = await readBody(request, takeInSchema);
  if (!read.ok) return read.response;
  const { upTo, take } = read.body;
  const entries = (await asideOf(database, ref)).filter(({ seq }) => seq <= upTo);
  for (let at = 0; take && at < entries.length; at += MOST_PUSHED) {
    const batch = entries.slice(at, at + MOST_PUSHED);
    const result = await inTurn(ref.business, () => append(database, ref, batch)).catch(notNow);
    if (result instanceof Response) return result;
    if (result.refused !== null) {
      await clearAside(database, ref, result.have);
      return refusedAs(409, { code: result.refused.code, message: result.refused.message });
    }
  }
  await clearAside(database, ref, upTo);
  return answer({ done: true });
};

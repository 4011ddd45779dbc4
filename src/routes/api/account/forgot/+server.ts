import { forgotSchema } from '$lib/core/access/account-messages';
import { addressKey } from '$lib/server/access/address-key';
import { beginReset } from '$lib/server/access/forgotten';
import { answer, refused } from '$lib/server/http/answers';
import { readBody } from '$lib/server/http/read-body';
import { tooMany } from '$lib/server/http/too-many';
import { log, services } from '$lib/server/services';
import { resetLetter } from '$lib/server/words/letters';
import type { RequestHandler } from './$types';

/** Says the same, and as soon, whether or not somebody has the address. */
export const POST: RequestHandler = async ({ request, url, getClientAddress }) => {
  const { limits, mailer } = services();
  const read = await readBody(request, forgotSchema);
  if (!read.ok) return read.response;
  if (mailer === null) {
    return refused(503, 'mail/none');
  }
  const email = read.body.email.trim().toLowerCase();
  const turned =
    (await tooMany(limits, 'forgot', addressKey(getClientAddress()))) ??
    (await tooMany(limits, 'letters', email));
  if (turned !== null) return turned;
  sendLink(email, url.origin).catch((error: unknown) => {
    log.error({ name: error instanceof Error ? error.name : 'unknown' }, 'a letter was not sent');
  });
  return answer({ done: true });
};

async function sendLink(email: string, origin: string): Promise<void> {
  const { database, mailer } = services();
  const token = await beginReset(database, email, Date.now());
  if (token === null) return;
  await mailer?.send({
    to: email,
    ...resetLetter(token, origin),
  });
}

import { noteCopy } from '$lib/server/access/devices';
import { pull } from '$lib/server/daybook/pull';
import { answer, refused } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ url, locals }) => {
  const asked = url.searchParams.get('after') ?? '0';
  if (!/^\d{1,15}$/.test(asked)) {
    const message = `after: "${asked.slice(0, 20)}" is not a position; use a whole number from 0.`;
    return refused(422, { code: 'query/wrong', message });
  }
  const { entries, position, latest, have } = await pull(
    services().database,
    locals.device,
    Number(asked),
  );
  // What it sent itself it cannot have less of, unless it was set back to an earlier day.
  const head = url.searchParams.get('head') ?? '';
  if (/^\d{1,15}$/.test(head) && have > Number(head)) {
    await noteCopy(services().database, locals.device, Date.now());
  }
  // The entries are JSON already, word for word as they were received.
  const rest = JSON.stringify({ position, latest, have, now: Date.now() }).slice(1);
  return answer(`{"entries":[${entries.join(',')}],${rest}`);
};

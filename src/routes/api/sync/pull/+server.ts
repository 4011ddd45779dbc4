import { noteCopy, noteSeen } from '$lib/server/access/devices';
import { isOtherEntry, pull } from '$lib/server/daybook/pull';
import { answer, refused } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ url, locals }) => {
  const { database } = services();
  const asked = url.searchParams.get('after') ?? '0';
  if (!/^\d{1,15}$/.test(asked)) {
    return refused(
      422,
      'query/wrong',
      'after',
      `"${asked.slice(0, 20)}" is not a position; use a whole number from 0.`,
    );
  }
  const mark = url.searchParams.get('mark') ?? '';
  const { entries, ...pulled } = await pull(
    database,
    locals.device,
    Number(asked),
    /^[0-9a-f]{64}$/.test(mark) ? mark : '',
  );
  const head = url.searchParams.get('head') ?? '';
  const hash = url.searchParams.get('hash') ?? '';
  const isNumber = /^\d{1,9}$/.test(head);
  // What it sent itself the server cannot have more of, nor otherwise, unless there is a copy of it.
  const isCopy = isNumber && (await isOtherEntry(database, locals.device, Number(head), hash));
  if (isCopy || (isNumber && pulled.have > Number(head)))
    await noteCopy(database, locals.device, Date.now());
  if (isNumber && !isCopy) await noteSeen(database, locals.device, Number(head), Date.now());
  // The entries are JSON already, word for word as they were received.
  const rest = JSON.stringify({ ...pulled, isCopy, now: Date.now() }).slice(1);
  return answer(`{"entries":[${entries.join(',')}],${rest}`);
};

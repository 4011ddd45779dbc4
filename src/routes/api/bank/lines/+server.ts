import { z } from 'zod';
import { day } from '$lib/core/daybook/kind';
import { knownLines } from '$lib/server/books/bank-rows';
import { answer, refused } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

const query = z.object({ from: day, to: day });

/** Lines of these days that there are already: a file is compared with them before anything of it is taken. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success)
    return refused(
      422,
      'query/wrong',
      'from, to',
      'Ask for days such as from=2026-11-01&to=2026-11-30.',
    );
  const { from, to } = asked.data;
  return answer({ lines: await knownLines(services().database, locals.owner.business, from, to) });
};

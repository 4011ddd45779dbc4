import { z } from 'zod';
import { BEHIND } from '$lib/core/settle/behind-row';
import { behindRow } from '$lib/server/books/behind-row';
import { answer, refused } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

const query = z.object({
  of: z.enum(BEHIND),
  id: z.string().min(1).max(40),
  after: z.string().max(60).default(''),
});

/** The documents behind a row of the settling page, the latest first. */
export const GET: RequestHandler = async ({ params, url, locals }) => {
  const asked = query.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success)
    return refused(
      422,
      'query/wrong',
      'of, id',
      'Ask as of=drawer&id=…, of a drawer, way or item.',
    );
  const { business } = locals.device;
  return answer(
    await behindRow(services().database, { business, event: params.id, ...asked.data }),
  );
};

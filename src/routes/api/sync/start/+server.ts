import { startPageSchema } from '$lib/core/daybook/sync-messages';
import { cursorFrom, startPage } from '$lib/server/daybook/start';
import { answer, refused } from '$lib/server/http/answers';
import { tooMany } from '$lib/server/http/too-many';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** Where a new device starts, a page at a time; `from` is what the page before said comes next. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const { database, limits } = services();
  const { business, device } = locals.device;
  const from = url.searchParams.get('from');
  if (from === null) {
    const turned = await tooMany(limits, 'start', device);
    return turned ?? answer(await startPage(database, business, null, Date.now()));
  }
  const cursor = cursorIn(from);
  if (cursor !== null) return answer(await startPage(database, business, cursor, Date.now()));
  return refused(422, 'query/wrong', 'from', 'not what a page said comes next; begin without it.');
};

function cursorIn(text: string): ReturnType<typeof cursorFrom> {
  try {
    const read = startPageSchema.shape.next.safeParse(JSON.parse(text));
    return read.success && read.data !== null ? cursorFrom(read.data) : null;
  } catch {
    return null;
  }
}

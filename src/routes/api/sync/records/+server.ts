import { tables, tableNames } from '$lib/core/books/tables';
import { recordsAskSchema } from '$lib/core/daybook/sync-messages';
import { answer } from '$lib/server/http/answers';
import { readBody } from '$lib/server/http/read-body';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** Records as they stand, for a device that had set them and was not allowed to. */
export const POST: RequestHandler = async ({ request, locals }) => {
  const read = await readBody(request, recordsAskSchema);
  if (!read.ok) return read.response;
  const { books } = services();
  const records = [];
  for (const { table: name, id } of read.body.wanted) {
    const table = tableNames.find((each) => each === name && tables[each].way === 'records');
    const [row] =
      table === undefined ? [] : await books.rows(locals.device.business, table, { id });
    records.push({ table: name, id, row: row ?? null });
  }
  return answer({ records });
};

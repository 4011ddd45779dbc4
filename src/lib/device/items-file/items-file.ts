/** Items as CSV files (RFC 4180): written here, read in a worker. */
import * as Comlink from 'comlink';
import Papa from 'papaparse';
import type { Row } from '../../core/books/tables';
import type { Draft } from '../../core/daybook/chain';
import { draft } from '../../core/daybook/kinds';
import { outsideId } from '../../core/daybook/outside-id';
import {
  ITEM_COLUMNS,
  itemLines,
  type ItemsContext,
  type PlannedLine,
} from '../../core/formats/items-table';
import { setCategory, unsetCategories } from '../../core/goods/categories';
import type { DeviceDaybook } from '../daybook';
import { newId } from '../new-id';
import type { FileRead, ItemsWorker } from './items-worker';

/** UTF-8 with CRLF, columns in their order. */
export const itemsCsv = (items: readonly Row<'items'>[], context: ItemsContext): string =>
  `${Papa.unparse([...itemLines(items, context)], { columns: [...ITEM_COLUMNS], newline: '\r\n' })}\r\n`;

/** Reads a file; the worker is gone when it is done or called off. */
export async function readItemsFile(
  text: string,
  items: readonly Row<'items'>[],
  context: ItemsContext,
  onProgress: (done: number, all: number) => void,
  signal: AbortSignal,
): Promise<FileRead> {
  const worker = new Worker(new URL('./items-worker.ts', import.meta.url), { type: 'module' });
  try {
    const called = new Promise<never>((_, reject) => {
      signal.addEventListener('abort', () => reject(new DOMException('called off', 'AbortError')));
      worker.onerror = () => reject(new Error('the file could not be read apart from the screen'));
    });
    const reading = Comlink.wrap<ItemsWorker>(worker).read(
      text,
      items,
      context,
      Comlink.proxy(onProgress),
    );
    return await Promise.race([reading, called]);
  } finally {
    worker.terminate();
  }
}

const AT_ONCE = 100;

/** Names of categories that nothing has yet become categories first; what they are called by name. */
async function newCategories(
  daybook: DeviceDaybook,
  planned: readonly { readonly category: string }[],
  lentBy: string | undefined,
): Promise<ReadonlyMap<string, string>> {
  const ids = new Map<string, string>();
  const known = await daybook.db.books.categories.toArray();
  const categories = [...known];
  const drafts: Draft[] = [];
  const business = (await daybook.db.read('identity'))?.business;
  for (const name of unsetCategories(planned, known)) {
    // As another device that takes the same file in would call it.
    const outside =
      business === undefined ? null : outsideId(business, 'category', name.toLowerCase());
    const id = known.some((each) => each.id === outside) ? null : outside;
    const made = setCategory({ newId, id, name, isActive: true, categories, items: [] });
    if (!made.ok) continue;
    ids.set(name, made.id);
    categories.push({ id: made.id, setStamp: 'x', name, sort: categories.length, isActive: true });
    drafts.push(...made.drafts);
  }
  if (drafts.length > 0)
    await daybook.append(() => ({ ok: true, drafts }), lentBy === undefined ? {} : { lentBy });
  return ids;
}

/**
 * Writes what is new and what has changed, in batches, each on disk before the next.
 * @returns How many were written; fewer than there are when it was called off.
 */
export async function takeItemsIn(
  daybook: DeviceDaybook,
  planned: readonly PlannedLine[],
  lentBy: string | undefined,
  onProgress: (done: number, all: number) => void,
  signal: AbortSignal,
): Promise<number> {
  const wanted = planned.flatMap(({ verdict, body }) =>
    body !== null && (verdict === 'new' || verdict === 'changed') ? [body] : [],
  );
  const named = await newCategories(daybook, wanted, lentBy);
  for (let at = 0; at < wanted.length; at += AT_ONCE) {
    if (signal.aborted) return at;
    onProgress(at, wanted.length);
    const drafts = wanted
      .slice(at, at + AT_ONCE)
      .map((body) => ({ ...body, category: named.get(body.category) ?? body.category }))
      .map((body) => draft('item.set', newId(), null, body));
    await daybook.append(() => ({ ok: true, drafts }), lentBy === undefined ? {} : { lentBy });
  }
  await daybook.settle();
  onProgress(wanted.length, wanted.length);
  return wanted.length;
}

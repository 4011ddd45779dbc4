/** Stock at six places and a load list, as rows of a device. */
import type { Row } from '../../src/lib/core/books/tables';
import { BASE } from '../../src/lib/core/books/names';
import { lineIdOf } from '../../src/lib/core/books/changes/list';
import type { DeviceDatabase } from '../../src/lib/device/database';
import { newId } from '../../src/lib/device/new-id';

const STORES = ['Barn', 'Cellar', 'Loft', 'Shed'];

/** The event and five places of one's own, every item at each of them. */
export async function fillPlaces({ books }: DeviceDatabase, event: string): Promise<void> {
  const [pattern] = await books.places.toArray();
  if (pattern === undefined) throw new Error('no places');
  const stores = STORES.map((name, at): Row<'places'> => ({
    ...pattern,
    ...{ id: newId(), name, sort: 'store', within: null, code: '', position: at, isActive: true },
  }));
  await books.places.clear();
  await books.places.bulkPut(stores);
  await books.stock.clear();
  const items = await books.items.toArray();
  for (const place of [event, BASE, ...stores.map(({ id }) => id)])
    await books.stock.bulkPut(
      items.map(({ id }, n) => ({ place, item: id, quantity: ((n * 7) % 90) * 1000 })),
    );
}

/** An approved load list from the base to the event, a line for each of so many items. @returns Its id. */
export async function fillList(
  { books }: DeviceDatabase,
  event: string,
  lines: number,
): Promise<string> {
  const [pattern] = (await books.lists.toArray()).filter(({ use }) => use === 'load');
  if (pattern === undefined) throw new Error('no load list');
  const id = newId();
  await books.lists.clear();
  await books.lists.put({
    ...pattern,
    ...{ id, event, from: BASE, to: event, supplier: null, van: null, stage: 'approved' },
  });
  const items = await books.items.limit(lines).toArray();
  await books.listLines.clear();
  await books.listLines.bulkPut(
    items.map(({ id: item }) => ({
      ...{ id: lineIdOf(id, item), setStamp: pattern.setStamp, list: id, item },
      ...{ wanted: 8000, price: null, note: '' },
    })),
  );
  return id;
}

/** The combination of an item that is chosen most, as far as this device knows. */
import type { Extra, Row } from '$lib/core/books/tables';
import type { DeviceDatabase } from '$lib/device/database';

export interface Usual {
  readonly item: Row<'items'>;
  readonly extras: readonly Extra[];
}

const MOST_LOOKED_AT = 3000;

/**
 * Of the lines sold lately here, the variant with its extras that occurs most; of several the one sold
 * last. Only if it can still be had: the variant is sold, and its extras still exist at that price.
 */
export async function usualOf(
  { books }: DeviceDatabase,
  item: Row<'items'>,
  variants: readonly Row<'items'>[],
): Promise<Usual | null> {
  const sold = new Map(
    (item.choices.length === 0 ? [item] : variants).map((each) => [each.id, each]),
  );
  if (item.isOpenPrice || item.isTimed || item.unit !== '') return null;
  const lines = await books.saleLines
    .reverse()
    .limit(MOST_LOOKED_AT)
    .filter((line) => line.item !== null && sold.has(line.item))
    .toArray();
  const counts = new Map<string, { count: number; usual: Usual }>();
  for (const line of lines) {
    const found = sold.get(line.item ?? '');
    const isThere = line.extras.every((extra) =>
      item.extras.some(({ options }) =>
        options.some(({ name, price }) => name === extra.name && price === extra.price),
      ),
    );
    if (found === undefined || !isThere) continue;
    const key = JSON.stringify([found.id, line.extras]);
    const known = counts.get(key);
    counts.set(key, {
      count: (known?.count ?? 0) + 1,
      usual: known?.usual ?? { item: found, extras: line.extras },
    });
  }
  const best = [...counts.values()].reduce<{ count: number; usual: Usual } | null>(
    (most, each) => (most === null || each.count > most.count ? each : most),
    null,
  );
  return best?.usual ?? null;
}

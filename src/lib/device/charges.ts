/** Standing charges, as this device knows them. */
import type { Row } from '../core/books/tables';
import { isKnown } from '../core/event/todays-event';
import type { DeviceDatabase } from './database';

export type Charge = Row<'charges'>;

/** All of them, or those of a customer's records; those that are still charged first. */
export async function chargesHere(
  { books }: DeviceDatabase,
  records?: readonly string[],
): Promise<readonly Charge[]> {
  const rows =
    records === undefined
      ? await books.charges.toArray()
      : await books.charges
          .where('customer')
          .anyOf([...records])
          .toArray();
  return rows
    .filter(isKnown)
    .sort((a, b) => Number(b.isActive) - Number(a.isActive) || (a.at < b.at ? -1 : 1));
}

/** What became of charging cards for one, the latest first. */
export const triesOf = async (
  { books }: DeviceDatabase,
  charge: string,
): Promise<readonly Row<'chargeCards'>[]> =>
  (await books.chargeCards.where('charge').equals(charge).toArray()).sort((a, b) =>
    a.at < b.at ? 1 : -1,
  );

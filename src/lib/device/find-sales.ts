/** The sales that this device keeps, to be found among. */
import { salesToFind, type SalesToFind } from '../core/find/sales';
import type { DeviceDatabase } from './database';

export async function readSalesToFind({ books }: DeviceDatabase): Promise<SalesToFind> {
  const [sales, lines, payments, returns, voids, corrections, staff, customers] = await Promise.all(
    [
      books.sales.toArray(),
      books.saleLines.toArray(),
      books.payments.toArray(),
      books.returns.toArray(),
      books.voids.toArray(),
      books.corrections.toArray(),
      books.staff.toArray(),
      books.customers.toArray(),
    ],
  );
  return salesToFind({ sales, lines, payments, returns, voids, corrections, staff, customers });
}

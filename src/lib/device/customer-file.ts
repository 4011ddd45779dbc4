/** All that is kept of a customer, as a file: what this device has, and what it let go of from the server. */
import { z } from 'zod';
import type { Row } from '../core/books/tables';
import {
  customerFile,
  salesOf,
  type CustomerDocuments,
  type CustomerFile,
} from '../core/customer/export-customer';
import { chargesHere } from './charges';
import type { DeviceDatabase } from './database';
import { joinedMoves, movesSchema, ownMoves } from './held-statement';
import { invoicesHere } from './invoices';
import type { NotAnswered } from './sync/ask-server';
import type { Transport } from './sync/transport';

const documentsSchema = z.object({
  sales: z.array(
    z.object({ id: z.string(), number: z.string(), at: z.string(), total: z.number() }),
  ),
  payers: z.array(
    z.object({ id: z.string(), name: z.string(), strokes: z.array(z.array(z.number())) }),
  ),
  moves: movesSchema,
});

export interface MadeFile {
  readonly file: CustomerFile;
  /** Why the server has not said what is long past; null where all of it is there. */
  readonly away: NotAnswered | null;
}

/** @param rows Their records, the one they go by first. */
export async function makeCustomerFile(
  db: DeviceDatabase,
  transport: Transport,
  customer: string,
  rows: readonly Row<'customers'>[],
): Promise<MadeFile> {
  const { books } = db;
  const path = `/api/customers/${encodeURIComponent(customer)}/documents`;
  const asked = await transport.ask(path, documentsSchema);
  const records = rows.map(({ id }) => id);
  const accounts = [`customer:${customer}`, `credit:${customer}`, `points:${customer}`] as const;
  const [sales, corrections, payers, own, consents, orders, invoiced, charges] = await Promise.all([
    books.sales.toArray(),
    books.corrections.toArray(),
    books.payers.where('customer').anyOf(records).toArray(),
    ownMoves(db, accounts),
    books.consents.where('customer').anyOf(records).toArray(),
    books.orders.where('customer').anyOf(records).toArray(),
    invoicesHere(db, customer),
    chargesHere(db, records),
  ]);
  const known = new Set(sales.map(({ id }) => id));
  const older: CustomerDocuments =
    asked.came === 'answer' ? asked.answer : { sales: [], payers: [], moves: [] };
  const drawn = new Set(payers.map(({ id }) => id));
  const file = customerFile({
    ...{ rows, consents, orders, charges, isWhole: asked.came === 'answer' },
    ...{ invoices: invoiced.invoices, numbers: invoiced.numbers },
    // Of a sale that this device has, it knows what was said of it last.
    sales: [
      ...older.sales.filter(({ id }) => !known.has(id)),
      ...salesOf(records, sales, corrections),
    ],
    payers: [...older.payers.filter(({ id }) => !drawn.has(id)), ...payers],
    moves: joinedMoves(own.moves, older.moves),
  });
  return { file, away: asked.came === 'answer' ? null : asked };
}

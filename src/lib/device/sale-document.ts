/** A sale with all that belongs to it: this device's own, or the server's where it is long past. */
import { z } from 'zod';
import { DOCUMENT_KINDS, type FoundDocument } from '../core/find/documents';
import { asCorrected } from '../core/sale/corrections';
import type { SoldSale } from '../core/sale/return-figures';
import type { FoundSale, SaleDocument } from '../core/sale/sale-document';
import type { DeviceDatabase } from './database';
import type { Away } from './sync/ask-server';
import type { Transport } from './sync/transport';

/** As the figures of a return want it. */
export const soldIn = ({ sale, lines, payments, returns }: SaleDocument): SoldSale => ({
  ...{ sale, lines, payments },
  before: returns,
});

/** Null where this device keeps no such sale. */
export async function ownSale({ books }: DeviceDatabase, id: string): Promise<SaleDocument | null> {
  const sale = await books.sales.get(id);
  if (sale === undefined) return null;
  const [lines, payments, voids, undone, corrections, returns, refunds, payers] = await Promise.all(
    [
      books.saleLines.where('sale').equals(id).sortBy('line'),
      books.payments.bulkGet([...sale.payments]),
      books.voids.where('sale').equals(id).toArray(),
      books.voidsUndone.where('sale').equals(id).toArray(),
      books.corrections.where('sale').equals(id).toArray(),
      books.returns.where('sale').equals(id).sortBy('at'),
      books.cardRefunds
        .where('payment')
        .anyOf([...sale.payments])
        .toArray(),
      books.payers.bulkGet([...sale.payments]),
    ],
  );
  const asRung = { sale, lines, payments: payments.flatMap((part) => part ?? []) };
  return {
    ...asCorrected(asRung, corrections),
    corrections,
    voids,
    undone,
    returns,
    refunds,
    payers: payers.flatMap((each) => each ?? []),
  };
}

export type OlderSale =
  | { readonly is: 'there'; readonly found: SaleDocument }
  /** The server says that there is none. */
  | { readonly is: 'nowhere' }
  | Away;

const rows = z.array(z.record(z.string(), z.unknown()));
const documentSchema = z.object({
  sale: z.looseObject({ id: z.string(), number: z.string() }),
  lines: rows,
  payments: rows,
  voids: rows,
  undone: rows,
  corrections: rows,
  handedOut: z.record(z.string(), z.number()).optional(),
  isMoved: z.boolean().optional(),
  returns: rows,
  refunds: rows,
  payers: rows,
});
const foundSchema = z.object({
  found: z.array(
    z.object({
      sale: z.looseObject({ id: z.string(), number: z.string() }),
      lines: rows,
      isVoid: z.boolean(),
      back: z.number(),
    }),
  ),
  documents: z
    .array(
      z.object({
        kind: z.enum(DOCUMENT_KINDS),
        id: z.string(),
        href: z.string().startsWith('/'),
        number: z.string(),
        title: z.string(),
        about: z.array(z.string()),
        at: z.string(),
        amount: z.number().nullable(),
      }),
    )
    .default([]),
});
/** What the server has of any age. */
interface OlderFound {
  readonly sales: readonly FoundSale[];
  readonly documents: readonly FoundDocument[];
}

export async function askSale(transport: Transport, id: string): Promise<OlderSale> {
  const asked = await transport.ask(`/api/sales/${encodeURIComponent(id)}`, documentSchema);
  if (asked.came === 'answer')
    return { is: 'there', found: asked.answer as unknown as SaleDocument };
  const isNowhere = asked.came === 'refusal' && asked.refusal.code === 'sale/unknown';
  return isNowhere ? { is: 'nowhere' } : { is: 'away', asked };
}

/** What fits what was typed, of any age. */
export async function askOlder(
  transport: Transport,
  typed: string,
): Promise<(OlderFound & { readonly is: 'there' }) | Away> {
  const asked = await transport.ask(`/api/sales?find=${encodeURIComponent(typed)}`, foundSchema);
  if (asked.came !== 'answer') return { is: 'away', asked };
  const { found, documents } = asked.answer;
  return { is: 'there', sales: found as unknown as FoundSale[], documents };
}

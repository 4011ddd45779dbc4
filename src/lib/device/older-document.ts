/** A document beside sales that this device let go of, asked of the server. */
import { z } from 'zod';
import type { OlderDocument } from '../core/find/documents';
import type { Away } from './sync/ask-server';
import type { Transport } from './sync/transport';

const row = z.looseObject({ id: z.string(), at: z.string() });
const olderSchema = z.discriminatedUnion('is', [
  z.object({
    is: z.literal('cash'),
    row,
    drawers: z.array(z.tuple([z.string(), z.string()])),
  }),
  z.object({ is: z.literal('goods'), row: row.extend({ item: z.string() }) }),
  z.object({
    is: z.literal('refund'),
    row,
    card: z
      .looseObject({ id: z.string(), state: z.string(), amount: z.number(), reason: z.string() })
      .nullable(),
  }),
]);

/** Nowhere: the server says that there is none. */
export async function askDocument(
  transport: Transport,
  id: string,
): Promise<OlderDocument | { readonly is: 'nowhere' } | Away> {
  const asked = await transport.ask(`/api/documents/${encodeURIComponent(id)}`, olderSchema);
  if (asked.came === 'answer') return asked.answer as unknown as OlderDocument;
  const isNowhere = asked.came === 'refusal' && asked.refusal.code === 'document/unknown';
  return isNowhere ? { is: 'nowhere' } : { is: 'away', asked };
}

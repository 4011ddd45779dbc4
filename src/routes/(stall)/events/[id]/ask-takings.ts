import { z } from 'zod';
import { takingsOf, type EventRows, type EventTakings } from '$lib/core/event/takings';
import type { Away } from '$lib/device/sync/ask-server';
import type { Transport } from '$lib/device/sync/transport';

export type ServerTakings =
  | { readonly is: 'asking' }
  | { readonly is: 'there'; readonly takings: EventTakings }
  | Away;

const rows = z.array(z.record(z.string(), z.unknown()));
const answer = z.object({
  totals: z.record(z.string(), z.unknown()).optional(),
  paidIn: z.record(z.string(), z.unknown()).optional(),
  items: rows,
  hours: rows,
  taxes: rows,
  ways: rows,
  tips: rows,
  stock: rows,
});

/** The event as MariaDB has it; away when there is no answer. */
export async function askTakings(transport: Transport, event: string): Promise<ServerTakings> {
  const asked = await transport.ask(`/api/events/${event}/takings`, answer);
  if (asked.came !== 'answer') return { is: 'away', asked };
  return { is: 'there', takings: takingsOf(asked.answer as unknown as EventRows) };
}

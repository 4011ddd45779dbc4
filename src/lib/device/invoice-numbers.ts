/**
 * Asks the server for the numbers of invoices that have none yet, whenever there is network, and writes down what it
 * gave. One tab does it for all; asked twice, the server says the same.
 */
import { draft } from '../core/daybook/kinds';
import { invoiceNumberSchema } from '../core/invoice/number-messages';
import type { DeviceDaybook } from './daybook';
import type { DeviceDatabase } from './database';
import { newId } from './new-id';
import { follow } from './follow';
import type { Transport } from './sync/transport';

const LOCK = 'stall-till-invoice-numbers';
const SOON = 700;
const LATER = 10_000;
/** Those of other devices are these devices' own to number, unless they have been gone for so long. Milliseconds. */
const OTHERS_AFTER = 3_600_000;

/** Until `signal` is aborted. */
export function numberInvoices(
  daybook: DeviceDaybook,
  transport: Transport,
  signal: AbortSignal,
): void {
  navigator.locks
    .request(LOCK, { signal }, () => numberUntil(daybook, transport, signal))
    .catch(() => undefined); // Ended while still waiting for its turn.
}

async function numberUntil(
  daybook: DeviceDaybook,
  transport: Transport,
  signal: AbortSignal,
): Promise<void> {
  let wake: () => void = () => undefined;
  const rows = follow(
    () => daybook.db.books.invoices.count(),
    () => wake(),
  );
  const sent = follow(
    async () => (await daybook.db.read('standing'))?.sent,
    () => wake(),
  );
  const now = (): void => wake();
  addEventListener('online', now);
  signal.addEventListener('abort', now);
  let tries = 0;
  while (!signal.aborted) {
    const left = await numberOnce(daybook, transport, Date.now()).catch((error: unknown) => {
      console.error('invoices are numbered later:', error);
      return 1;
    });
    tries = left === 0 ? 0 : tries + 1;
    await new Promise<void>((resolve) => {
      // With nothing to do it sleeps until something is written.
      const timer = left === 0 ? undefined : setTimeout(resolve, tries <= 8 ? SOON : LATER);
      wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }
  removeEventListener('online', now);
  rows.unsubscribe();
  sent.unsubscribe();
}

/** @returns How many have no number still. @param now Milliseconds since 1970. */
export async function numberOnce(
  daybook: DeviceDaybook,
  transport: Transport,
  now: number,
): Promise<number> {
  const { db } = daybook;
  const wanted = await withoutNumber(db, now);
  let left = 0;
  for (const invoice of wanted) {
    const asked = await transport.ask('/api/invoices/number', invoiceNumberSchema, { invoice });
    if (asked.came !== 'answer') {
      left += 1;
      continue;
    }
    const { series, n, number, seal } = asked.answer;
    await daybook.decide(
      async () => (await db.books.invoiceNumbers.get(invoice))?.setStamp ?? '',
      (known) => ({
        ok: true,
        drafts:
          known === ''
            ? [draft('invoice.numbered', newId(), null, { invoice, series, n, number, seal })]
            : [],
      }),
    );
    await daybook.settle();
  }
  return left;
}

/** Its own, those of devices that were shut out, and others' that have waited. */
async function withoutNumber(db: DeviceDatabase, now: number): Promise<readonly string[]> {
  const identity = await db.read('identity');
  if (identity === undefined) return [];
  const standing = await db.read('standing');
  const shutOut = new Set(standing?.shutOut);
  const keys = (await db.books.invoices.toCollection().primaryKeys()) as string[];
  const numbered = new Set(await db.books.invoiceNumbers.toCollection().primaryKeys());
  const open = await db.books.invoices.bulkGet(keys.filter((key) => !numbered.has(key)));
  return open.flatMap((invoice) => {
    if (invoice === undefined) return [];
    const { id, device, at } = invoice;
    const isOurs =
      device === identity.device || shutOut.has(device) || now - Date.parse(at) > OTHERS_AFTER;
    return isOurs ? [id] : [];
  });
}

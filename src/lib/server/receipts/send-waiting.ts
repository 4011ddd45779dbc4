/** Sends what waits, behind whatever else goes on; one round at a time in this process. */
import { log, services } from '../services';
import { sendReceipts } from './send-receipts';

let round: Promise<unknown> | null = null;
let isAskedAgain = false;

export function sendWaiting(): void {
  const { database, books, mailer } = services();
  if (mailer === null) return;
  if (round !== null) {
    isAskedAgain = true;
    return;
  }
  round = sendReceipts(database, books, mailer, Date.now())
    .catch((error: unknown) => {
      log.error({ name: error instanceof Error ? error.name : 'unknown' }, 'receipts wait');
    })
    .finally(() => {
      round = null;
      if (!isAskedAgain) return;
      isAskedAgain = false;
      sendWaiting();
    });
}

/**
 * What is done behind the answers: receipts that are to be sent, cards that the acquirer is to forget.
 * One round at a time in this process; whoever does not answer is asked again a minute later.
 */
import { forgetCards } from './cards/forget-cards';
import { sendReceipts } from './receipts/send-receipts';
import { log, services } from './services';

const TRIED_AGAIN_AFTER = 61_000;

let round: Promise<void> | null = null;
let isAskedAgain = false;
let timer: NodeJS.Timeout | undefined;

/** Does what waits; nobody waits for it. */
export function doBehind(): void {
  if (round !== null) {
    isAskedAgain = true;
    return;
  }
  clearTimeout(timer);
  round = once()
    .catch((error: unknown) => {
      log.error(
        { name: error instanceof Error ? error.name : 'unknown' },
        'nothing is done behind',
      );
    })
    .finally(() => {
      round = null;
      if (!isAskedAgain) return;
      isAskedAgain = false;
      doBehind();
    });
}

async function once(): Promise<void> {
  const { database, books, mailer, texts, acquirer } = services();
  const left = [
    await tried('receipts wait', () =>
      sendReceipts(database, books, { mailer, texts }, Date.now()),
    ),
    acquirer === null
      ? 0
      : await tried('cards wait to be forgotten', () => forgetCards(database, acquirer)),
  ];
  if (left.every((each) => each === 0)) return;
  timer = setTimeout(doBehind, TRIED_AGAIN_AFTER);
  // It must not keep a server alive that is asked to end.
  timer.unref();
}

/** @returns How many are left, as far as that is known. */
async function tried(what: string, task: () => Promise<number>): Promise<number> {
  try {
    return await task();
  } catch (error) {
    log.error({ name: error instanceof Error ? error.name : 'unknown' }, what);
    return 1;
  }
}

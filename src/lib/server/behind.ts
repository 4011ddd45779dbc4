/**
 * What is done behind the answers: receipts that are to be sent, cards that the acquirer is to forget or is
 * asked about.
 * One round at a time in this process; whoever does not answer is asked again a minute later.
 */
import { clearSpent } from './access/clear-spent';
import { forgetCards } from './cards/cards-on-file';
import { checkCards } from './cards/check-cards';
import { judgeAllKept } from './daybook/judge-kept';
import { sendReceipts } from './receipts/send-receipts';
import { log, services } from './services';

const TRIED_AGAIN_AFTER = 61_000;
/** How often rows that nobody needs any more are cleared. */
const CLEARED_EVERY = 3_600_000;

/** Pushes that come close together are one occasion. */
const SOON = 300;

let isUnderWay = false;
let isAskedAgain = false;
/** A round begins in a moment; more pushes do not put it off. */
let isSoon = false;
let timer: NodeJS.Timeout | undefined;

/** Clears now, and every hour from then on. */
export function clearEveryHour(): void {
  const clear = (): void =>
    void tried('spent rows stay', () => clearSpent(services().database, Date.now()));
  setInterval(clear, CLEARED_EVERY).unref();
  clear();
}

/** A version that reads more than the one before takes up what that had to keep. */
export function takeUpKept(): void {
  void tried('kept entries stay', () => judgeAllKept(services().database, Date.now()));
}

/** Does what waits, soon; nobody waits for it. */
export function doBehind(): void {
  if (isUnderWay) isAskedAgain = true;
  else if (!isSoon) wait(SOON);
}

function wait(milliseconds: number): void {
  clearTimeout(timer);
  isSoon = milliseconds === SOON;
  timer = setTimeout(() => void round(), milliseconds);
  // It must not keep a server alive that is asked to end.
  timer.unref();
}

async function round(): Promise<void> {
  [isUnderWay, isSoon] = [true, false];
  const left = await tried('nothing is done behind', once);
  isUnderWay = false;
  if (isAskedAgain) wait(SOON);
  else if (left > 0) wait(TRIED_AGAIN_AFTER);
  isAskedAgain = false;
}

/** @returns How many are left, as far as that is known. */
async function once(): Promise<number> {
  const { database, books, mailer, texts, acquirer } = services();
  const receipts = await tried('receipts wait', () =>
    sendReceipts(database, books, { mailer, texts }, Date.now()),
  );
  const cards =
    acquirer === null
      ? 0
      : await tried('cards wait to be forgotten', () =>
          forgetCards(database, acquirer, Date.now()),
        );
  const checks = await tried('cards wait to be checked', () =>
    checkCards(database, acquirer, Date.now()),
  );
  return receipts + cards + checks;
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

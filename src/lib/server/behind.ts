/**
 * What is done behind the answers: receipts that are to be sent, cards that the acquirer is to forget or is
 * asked about, standing charges that are due.
 * One round at a time in this process; whoever does not answer is asked again a minute later.
 */
import { clearSpent } from './access/clear-spent';
import { forgetCards } from './cards/cards-on-file';
import { checkCards } from './cards/check-cards';
import { makeCharges } from './charges/make-charges';
import { takeCards } from './charges/take-cards';
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

/** How often it is looked whether standing charges are due. */
const CHARGES_EVERY = 60_000;
let isCharging = false;

/** Makes standing charges that are due now, and whenever one is from then on. */
export function chargeWhenDue(): void {
  const look = (): void => void charge();
  setInterval(look, CHARGES_EVERY).unref();
  look();
}

/** One run at a time in this process; several processes share the work. */
async function charge(): Promise<void> {
  if (isCharging) return;
  const { database, books, acquirer } = services();
  isCharging = true;
  const made = await tried('standing charges wait', () => makeCharges(database, books, Date.now()));
  // As long as there are fewer each time: what could not be asked is due again later.
  for (let before = Number.POSITIVE_INFINITY; ;) {
    const left = await tried('cards on file wait', () =>
      takeCards(database, books, acquirer, Date.now()),
    );
    if (left === 0 || left >= before) break;
    before = left;
  }
  isCharging = false;
  // Letters go out with what was made.
  if (made > 0) doBehind();
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
  // It can take long, and nothing else waits for it.
  void charge();
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

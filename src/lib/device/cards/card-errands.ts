/**
 * What the acquirer still has to be told, done in order whenever there is network: cards that were
 * taken with none, payments that were begun and never finished, parts that were given back. One tab
 * does it for all. Every errand can be done again without harm (core/payment/carry.ts).
 */
import { draft, type BodyOf } from '../../core/daybook/kinds';
import {
  cardErrand,
  cardErrands,
  type CardErrand,
  type CardPayment,
} from '../../core/payment/card-state';
import { endedHold, heldResult, resultOf } from '../../core/payment/card-answers';
import {
  cardAnswerSchema,
  refundAnswerSchema,
  type CardAnswer,
  type RefundAnswer,
} from '../../core/payment/card-messages';
import { refundErrands } from '../../core/payment/refund-state';
import type { DeviceDaybook } from '../daybook';
import { newId } from '../new-id';
import type { Asked, Transport } from '../sync/transport';
import { follow } from '../follow';
import { openCards } from './card-rows';

const LOCK = 'stall-till-cards';
const PAUSE = 10_000;
/** What was written a moment ago may still be on its way to the server. */
const SHORT_PAUSE = 700;
const SHORT_PAUSES = 8;

/** Held by the window that asks for this card, for as long as it does; and by whoever does its errand. */
export const cardLock = (payment: string): string => `stall-till-card-${payment}`;

/** What errands are done with; tests put others in its place. */
export interface ErrandSurroundings {
  readonly ask: (errand: CardErrand) => Promise<Asked<CardAnswer>>;
  /** Asks for money to go back to a card: the same refund, however often. */
  readonly askRefund: (refund: string) => Promise<Asked<RefundAnswer>>;
  /** Runs it unless the payment is somebody's just now. @returns Whether it ran. */
  readonly unlessUnderWay: (payment: string, run: () => Promise<void>) => Promise<boolean>;
  /** Milliseconds since 1970. */
  readonly now: () => number;
}

/** Does errands until `signal` is aborted. */
export function doCardErrands(
  daybook: DeviceDaybook,
  transport: Transport,
  currency: () => string,
  signal: AbortSignal,
): void {
  const surroundings: ErrandSurroundings = {
    ask: async (errand) => await askServer(errand, transport, currency()),
    askRefund: async (refund) =>
      await transport.ask('/api/cards/refund', refundAnswerSchema, { refund }),
    unlessUnderWay: async (payment, run) =>
      await navigator.locks.request(cardLock(payment), { ifAvailable: true }, async (lock) => {
        if (lock !== null) await run();
        return lock !== null;
      }),
    now: () => Date.now(),
  };
  navigator.locks
    .request(LOCK, { signal }, () => errandsUntil(daybook, surroundings, signal))
    .catch(() => undefined); // Ended while still waiting for its turn.
}

async function errandsUntil(
  daybook: DeviceDaybook,
  surroundings: ErrandSurroundings,
  signal: AbortSignal,
): Promise<void> {
  let wake: () => void = () => undefined;
  const rows = follow(
    () => daybook.db.books.cardPayments.count(),
    () => wake(),
  );
  const applied = follow(
    () => daybook.db.read('applied'),
    () => wake(),
  );
  const online = (): void => wake();
  addEventListener('online', online);
  signal.addEventListener('abort', online);
  let soon = 0;
  while (!signal.aborted) {
    const left = await doErrandsOnce(daybook, surroundings).catch((): Left => 'later');
    soon = left === 'soon' ? soon + 1 : 0;
    const pause = soon > 0 && soon <= SHORT_PAUSES ? SHORT_PAUSE : PAUSE;
    await new Promise<void>((resolve) => {
      // With nothing to do it sleeps until something is written; what failed is tried again.
      const timer = left === 'nothing' ? undefined : setTimeout(resolve, pause);
      wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }
  removeEventListener('online', online);
  rows.unsubscribe();
  applied.unsubscribe();
}

/** What is left: nothing, what the server has not heard of yet, or what nobody answers for. */
export type Left = 'nothing' | 'soon' | 'later';

/** Every errand that there is now, once. One that cannot be done, or that throws, does not hold up the others. */
export async function doErrandsOnce(
  daybook: DeviceDaybook,
  surroundings: ErrandSurroundings,
): Promise<Left> {
  const { db } = daybook;
  const identity = await db.read('identity');
  if (identity === undefined) return 'nothing';
  const shutOut = new Set((await db.read('standing'))?.shutOut);
  let left = await giveBack(daybook, surroundings, identity.device, shutOut).catch(
    (error: unknown): Left => {
      console.error('money goes back to a card later:', error);
      return 'later';
    },
  );
  for (const { payment } of cardErrands(await openCards(db), identity.device, shutOut)) {
    let came: Left = 'later';
    const one = async (): Promise<void> => {
      // What was to be done when the list was made may have been overtaken: only the row as it is now counts.
      await daybook.settle();
      const row = await db.books.cardPayments.get(payment);
      const errand = row === undefined ? null : cardErrand(row, identity.device, shutOut);
      came =
        row === undefined || errand === null
          ? 'nothing'
          : await doErrand(daybook, surroundings, errand, row);
    };
    await surroundings.unlessUnderWay(payment, one).catch((error: unknown) => {
      console.error('an errand about a card is tried again later:', error);
    });
    left = later(left, came);
  }
  return left;
}

/** Money that goes back to cards for goods that came back, one after another. */
async function giveBack(
  daybook: DeviceDaybook,
  { askRefund }: ErrandSurroundings,
  device: string,
  shutOut: ReadonlySet<string>,
): Promise<Left> {
  const { cardRefunds } = daybook.db.books;
  await daybook.settle();
  const open = await cardRefunds.where('state').equals('').toArray();
  let left: Left = 'nothing';
  for (const { id, payment, event } of refundErrands(open, device, shutOut)) {
    const asked = await askRefund(id);
    if (asked.came === 'answer') {
      const body = { refund: id, payment, ...asked.answer };
      await daybook.append(() => ({
        ok: true,
        drafts: [draft('refund.result', newId(), event, body)],
      }));
      await daybook.settle();
    } else {
      const isOnItsWay = asked.came === 'refusal' && asked.refusal.code === 'card/not-decided';
      left = later(left, isOnItsWay ? 'soon' : 'later');
    }
  }
  return left;
}

const later = (a: Left, b: Left): Left =>
  a === 'later' || b === 'later' ? 'later' : a === 'soon' || b === 'soon' ? 'soon' : 'nothing';

async function doErrand(
  daybook: DeviceDaybook,
  { ask, now }: ErrandSurroundings,
  errand: CardErrand,
  row: CardPayment,
): Promise<Left> {
  const asked = await ask(errand);
  if (asked.came === 'answer') {
    const result = isOfHold(errand)
      ? heldResult(errand.payment, row.resultAmount, asked.answer)
      : resultOf(errand, asked.answer);
    if (result !== null) await note(daybook, row, result);
    return 'nothing';
  }
  if (asked.came !== 'refusal') return 'later';
  const { code, message } = asked.refusal;
  // The entry that decides it has not arrived, or somebody must look at it first.
  if (code === 'card/not-decided') return 'soon';
  // A hold that has run out can be neither taken nor released: that is the end of it. Nothing else ends by
  // a refusal: the card may be charged all the same.
  const ended =
    isOfHold(errand) && code === 'card/refused'
      ? endedHold(row, new Date(now()).toISOString(), message)
      : null;
  if (ended === null) return 'later';
  await note(daybook, row, ended);
  return 'nothing';
}

const isOfHold = ({ does }: CardErrand): boolean => does === 'capture' || does === 'release';

function askServer(
  errand: CardErrand,
  transport: Transport,
  currency: string,
): Promise<Asked<CardAnswer>> {
  const { payment } = errand;
  if (errand.does !== 'send')
    return transport.ask(`/api/cards/${errand.does}`, cardAnswerSchema, { payment });
  const { amount, sealed, voice } = errand;
  const body = { payment, amount, currency, sealed, voice };
  return transport.ask('/api/cards/payments', cardAnswerSchema, body);
}

async function note(
  daybook: DeviceDaybook,
  row: CardPayment,
  result: BodyOf<'payment.result'>,
): Promise<void> {
  await daybook.append(() => ({
    ok: true,
    drafts: [draft('payment.result', newId(), row.event, result)],
  }));
  await daybook.settle();
}

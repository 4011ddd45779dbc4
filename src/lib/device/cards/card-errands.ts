/**
 * What the acquirer still has to be told, done in order whenever there is network: cards that were
 * taken with none, payments that were begun and never finished, parts that were given back. One tab
 * does it for all. Every errand can be done again without harm (core/payment/carry.ts).
 */
import { liveQuery } from 'dexie';
import { draft } from '../../core/daybook/kinds';
import { cardErrands, type CardErrand } from '../../core/payment/carry';
import { resultOf } from '../../core/payment/card-answers';
import { cardAnswerSchema, type CardAnswer } from '../../core/payment/card-messages';
import type { DeviceDaybook } from '../daybook';
import { newId } from '../new-id';
import type { Transport } from '../sync/transport';

const LOCK = 'stall-till-cards';
/** Held by a tab for as long as it asks for a card; its errands are its own business. */
export const CARD_UNDER_WAY = 'stall-till-card-under-way';
const PAUSE = 10_000;

/** Does errands until `signal` is aborted. */
export function doCardErrands(
  daybook: DeviceDaybook,
  transport: Transport,
  currency: () => string,
  signal: AbortSignal,
): void {
  navigator.locks
    .request(LOCK, { signal }, () => errandsUntil(daybook, transport, currency, signal))
    .catch(() => undefined); // Ended while still waiting for its turn.
}

async function errandsUntil(
  daybook: DeviceDaybook,
  transport: Transport,
  currency: () => string,
  signal: AbortSignal,
): Promise<void> {
  let wake: () => void = () => undefined;
  const rows = liveQuery(() => daybook.db.books.cardPayments.count()).subscribe(() => wake());
  const applied = liveQuery(() => daybook.db.read('applied')).subscribe(() => wake());
  const online = (): void => wake();
  addEventListener('online', online);
  signal.addEventListener('abort', online);
  while (!signal.aborted) {
    const isAllDone = await round(daybook, transport, currency()).catch(() => false);
    await new Promise<void>((resolve) => {
      // With nothing to do it sleeps until something is written; what failed is tried again.
      const timer = isAllDone ? undefined : setTimeout(resolve, PAUSE);
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

/** @returns False if something is left that must be tried again. */
async function round(
  daybook: DeviceDaybook,
  transport: Transport,
  currency: string,
): Promise<boolean> {
  const { db } = daybook;
  const identity = await db.read('identity');
  if (identity === undefined) return true;
  const rows = await db.books.cardPayments.where('device').equals(identity.device).toArray();
  const errands = cardErrands(rows, identity.device);
  for (const errand of errands) {
    // Somebody may be asking for that very card: then it is theirs to finish.
    if (errand.does === 'cancel' && errand.why === 'unfinished') {
      if (await isUnderWay()) return false;
      // Or it was finished since the rows were read: then its entry is there, and they follow.
      await daybook.settle();
      const row = await db.books.cardPayments.get(errand.payment);
      if (row === undefined || cardErrands([row], identity.device).length === 0) continue;
    }
    const answer = await run(errand, transport, currency);
    if (answer === null) return false;
    await note(daybook, errand, answer);
  }
  return true;
}

async function isUnderWay(): Promise<boolean> {
  const { held = [] } = await navigator.locks.query();
  return held.some(({ name }) => name === CARD_UNDER_WAY);
}

async function run(
  errand: CardErrand,
  transport: Transport,
  currency: string,
): Promise<CardAnswer | null> {
  const { payment } = errand;
  const asked =
    errand.does === 'send'
      ? await transport.ask('/api/cards/payments', cardAnswerSchema, {
          payment,
          amount: errand.amount,
          currency,
          sealed: errand.sealed,
          voice: errand.voice,
        })
      : await transport.ask('/api/cards/cancel', cardAnswerSchema, { payment });
  if (asked.came === 'answer') return asked.answer;
  // The acquirer will never take it: that is an answer too.
  if (asked.came === 'refusal' && asked.refusal.code === 'card/refused')
    return { ...NOTHING, state: 'declined', reason: asked.refusal.message.slice(0, 120) };
  return null;
}

const NOTHING: CardAnswer = {
  state: 'declined',
  amount: 0,
  approval: '',
  acquirer: '',
  reason: '',
  expires: '',
};

async function note(daybook: DeviceDaybook, errand: CardErrand, answer: CardAnswer): Promise<void> {
  const row = await daybook.db.books.cardPayments.get(errand.payment);
  await daybook.append(() => ({
    ok: true,
    drafts: [draft('payment.result', newId(), row?.event ?? null, resultOf(errand, answer))],
  }));
  await daybook.settle();
}

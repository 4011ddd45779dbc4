/**
 * What the acquirer still has to be told, done in order whenever there is network: cards that were
 * taken with none, payments that were begun and never finished, parts that were given back. One tab
 * does it for all. Every errand can be done again without harm (core/payment/carry.ts).
 */
import { liveQuery } from 'dexie';
import { draft } from '../../core/daybook/kinds';
import { cardErrands, type CardErrand } from '../../core/payment/carry';
import { heldResult, resultOf } from '../../core/payment/card-answers';
import { cardAnswerSchema, type CardAnswer } from '../../core/payment/card-messages';
import type { DeviceDaybook } from '../daybook';
import { newId } from '../new-id';
import type { Asked, Transport } from '../sync/transport';
import { openCards } from './card-rows';

const LOCK = 'stall-till-cards';
/** Held by a tab for as long as it asks for a card; its errands are its own business. */
export const CARD_UNDER_WAY = 'stall-till-card-under-way';
const PAUSE = 10_000;
/** What was written a moment ago may still be on its way to the server. */
const SHORT_PAUSE = 700;
const SHORT_PAUSES = 8;

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
  let soon = 0;
  while (!signal.aborted) {
    const left = await round(daybook, transport, currency()).catch((): Left => 'later');
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
type Left = 'nothing' | 'soon' | 'later';

async function round(
  daybook: DeviceDaybook,
  transport: Transport,
  currency: string,
): Promise<Left> {
  const { db } = daybook;
  const identity = await db.read('identity');
  if (identity === undefined) return 'nothing';
  const errands = cardErrands(await openCards(db), identity.device);
  let left: Left = 'nothing';
  for (const errand of errands) {
    // Somebody may be asking for that very card: then it is theirs to finish.
    if (errand.does === 'cancel' && errand.why === 'unfinished') {
      if (await isUnderWay()) return 'later';
      // Or it was finished since the rows were read: then its entry is there, and they follow.
      await daybook.settle();
      const row = await db.books.cardPayments.get(errand.payment);
      if (row === undefined || cardErrands([row], identity.device).length === 0) continue;
    }
    const answer = await run(errand, transport, currency);
    // One that cannot be done now does not hold up the others.
    if (answer === 'not yet') left = left === 'later' ? left : 'soon';
    else if (answer === null) left = 'later';
    else await note(daybook, errand, answer);
  }
  return left;
}

async function isUnderWay(): Promise<boolean> {
  const { held = [] } = await navigator.locks.query();
  return held.some(({ name }) => name === CARD_UNDER_WAY);
}

async function run(
  errand: CardErrand,
  transport: Transport,
  currency: string,
): Promise<CardAnswer | 'not yet' | null> {
  const asked = await ask(errand, transport, currency);
  if (asked.came === 'answer') return asked.answer;
  if (asked.came !== 'refusal') return null;
  // The entry that decides it has not arrived, or somebody must look at it first.
  if (asked.refusal.code === 'card/not-decided') return 'not yet';
  // The acquirer will never take it: that is an answer too.
  if (errand.does === 'send' && asked.refusal.code === 'card/refused')
    return { ...NOTHING, state: 'declined', reason: asked.refusal.message.slice(0, 120) };
  return null;
}

function ask(
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
  const result =
    errand.does === 'capture' || errand.does === 'release'
      ? heldResult(errand.payment, row?.resultAmount ?? 0, answer)
      : resultOf(errand, answer);
  if (result === null) return;
  await daybook.append(() => ({
    ok: true,
    drafts: [draft('payment.result', newId(), row?.event ?? null, result)],
  }));
  await daybook.settle();
}

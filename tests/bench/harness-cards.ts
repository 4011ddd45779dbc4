/** Cards that were carried, made at the application's own address, and sent as the application does. */
import { draft } from '../../src/lib/core/daybook/kinds';
import { cardAnswerSchema } from '../../src/lib/core/payment/card-messages';
import { cardErrands } from '../../src/lib/core/payment/card-state';
import { CASH_WAY } from '../../src/lib/core/payment/ways';
import { doCardErrands } from '../../src/lib/device/cards/card-errands';
import { cardKey } from '../../src/lib/device/cards/card-key';
import { seal } from '../../src/lib/device/cards/seal';
import type { DeviceDaybook } from '../../src/lib/device/daybook';
import { newId } from '../../src/lib/device/new-id';
import { Transport } from '../../src/lib/device/sync/transport';

const CARD = { scheme: 'Visa', number: '4000000000004471', entry: 'tap', outcome: 'approve' };
const AMOUNT = 1250;

async function begin({ db }: DeviceDaybook) {
  const identity = await db.read('identity');
  if (identity === undefined) throw new Error('this device is not enrolled');
  const transport = new Transport(identity.token);
  const known = await cardKey(db, transport);
  if (known === null) throw new Error('nobody says what cards are sealed with');
  return { device: identity.device, transport, sealed: await seal(known.key, CARD) };
}

/** Milliseconds until so many carried cards have been sent and their answers are in the rows. */
export async function timeCarried(
  daybook: DeviceDaybook,
  event: string,
  count: number,
): Promise<number> {
  const { db } = daybook;
  const { device, transport, sealed } = await begin(daybook);
  const card = {
    scheme: CARD.scheme,
    last4: '4471',
    entry: 'tap',
    state: 'deferred',
    approval: '',
    acquirer: '',
    sealed,
    expires: '',
    voice: '',
    isOverLimit: false,
    isSigned: false,
  } as const;
  let last = '';
  const drafts = Array.from({ length: count }, () => {
    const [payment, slip] = [newId(), newId()];
    last = payment;
    const asked = { payment, slip, way: CASH_WAY.id, amount: AMOUNT };
    const taken = {
      slip,
      way: CASH_WAY.id,
      wayName: 'Card',
      method: 'card',
      side: 'card',
      drawer: null,
      clears: AMOUNT,
      charge: AMOUNT,
      surcharge: 0,
      tip: 0,
      change: 0,
      rounding: 0,
      reference: '',
      customer: null,
      share: null,
      card,
    } as const;
    return [
      draft('payment.asked', newId(), event, asked),
      draft('payment.taken', payment, event, taken),
    ];
  }).flat();
  for (let from = 0; from < drafts.length; from += 100)
    await daybook.append(() => ({ ok: true as const, drafts: drafts.slice(from, from + 100) }));
  await daybook.settle();
  const left = async (): Promise<number> => {
    const rows = await db.books.cardPayments.where('device').equals(device).toArray();
    return cardErrands(rows, device).length;
  };
  if ((await left()) !== count) throw new Error('not all of them are carried');
  const stop = new AbortController();
  const from = performance.now();
  doCardErrands(daybook, transport, () => 'GBP', stop.signal);
  // They are sent in order: when the last has its answer, all have.
  while ((await db.books.cardPayments.get(last))?.state === '')
    await new Promise((resolve) => setTimeout(resolve, 20));
  const took = performance.now() - from;
  stop.abort();
  return took;
}

/** Milliseconds of each bare question to the acquirer, through our server. */
export async function timeCardAsks(daybook: DeviceDaybook, count: number): Promise<number[]> {
  const { transport, sealed } = await begin(daybook);
  const times: number[] = [];
  for (let n = 0; n < count; n += 1) {
    const asked = { payment: newId(), amount: AMOUNT, currency: 'GBP', sealed };
    const from = performance.now();
    const answer = await transport.ask('/api/cards/payments', cardAnswerSchema, asked);
    if (answer.came !== 'answer') throw new Error('the acquirer did not answer');
    times.push(performance.now() - from);
  }
  return times;
}

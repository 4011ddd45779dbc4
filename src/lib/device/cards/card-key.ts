/** What cards are sealed with: asked for with the network, kept for when there is none. */
import { cardKeySchema } from '../../core/payment/card-messages';
import type { CardKey, DeviceDatabase } from '../database';
import type { Transport } from '../sync/transport';

/** Milliseconds in which it is not asked for again: each sale would, and a payment waits behind it where little gets through. */
const HOLDS = 3_600_000;

/**
 * The key as this device knows it. One that was heard of long ago is asked for anew; until there is an answer, it holds.
 * @param now Milliseconds since 1970.
 */
export async function cardKey(
  db: DeviceDatabase,
  transport: Transport,
  now: number = Date.now(),
): Promise<CardKey | null> {
  const known = await db.read('cardKey');
  if (known === undefined) return await askCardKey(db, transport, now);
  // A clock that was wrong when it was heard of must not keep it for years.
  if (Math.abs(now - (known.heardAt ?? 0)) >= HOLDS)
    askCardKey(db, transport, now).catch(() => undefined); // Without network it stays as it is.
  return known;
}

/** Asks for it whatever is known, as at each start. @returns Null where nobody answered. */
export async function askCardKey(
  db: DeviceDatabase,
  transport: Transport,
  now: number = Date.now(),
): Promise<CardKey | null> {
  const asked = await transport.ask('/api/cards/key', cardKeySchema);
  if (asked.came !== 'answer') return null;
  const { key, isPractice } = asked.answer;
  const heard: CardKey = { key, isPractice, heardAt: now };
  await db.write('cardKey', heard);
  return heard;
}

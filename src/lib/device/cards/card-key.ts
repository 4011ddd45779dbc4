/** What cards are sealed with: asked for with the network, kept for when there is none. */
import { cardKeySchema } from '../../core/payment/card-messages';
import type { CardKey, DeviceDatabase } from '../database';
import type { Transport } from '../sync/transport';

/** The key as this device knows it. It is asked for anew each time; until there is an answer, the known one holds. */
export async function cardKey(db: DeviceDatabase, transport: Transport): Promise<CardKey | null> {
  const known = await db.read('cardKey');
  const renewed = renew(db, transport);
  if (known === undefined) return await renewed;
  renewed.catch(() => undefined); // Without network it stays as it is.
  return known;
}

async function renew(db: DeviceDatabase, transport: Transport): Promise<CardKey | null> {
  const asked = await transport.ask('/api/cards/key', cardKeySchema);
  if (asked.came !== 'answer') return null;
  const key: CardKey = { key: asked.answer.key, isPractice: asked.answer.isPractice };
  await db.write('cardKey', key);
  return key;
}

/** Making this browser a device of a business, in one go; can be tried again at any point. */
import { declaredSums } from '../core/journal/new-sums';
import { v4 } from 'uuid';
import { draft } from '../core/daybook/kinds';
import type { Refusal, StartAnswer } from '../core/daybook/sync-messages';
import { deviceTables } from '../core/books/tables';
import { DeviceDaybook } from './daybook';
import {
  NO_CHOICES,
  type Choices,
  type DeviceDatabase,
  type Founding,
  type Identity,
} from './database';
import { newId } from './new-id';
import { NO_STANDING } from './receive';
import type { NotAnswered } from './sync/ask-server';
import { Transport } from './sync/transport';

export type EnrolResult =
  | { readonly ok: true; readonly identity: Identity }
  /** Where it came to nothing, that says nothing about the code that was entered. */
  | { readonly ok: false; readonly asked: NotAnswered | RefusedHere };

/** What needs no server to be refused. */
interface RefusedHere {
  readonly came: 'refusal';
  readonly refusal: Refusal;
}

/**
 * Enrols with a code and takes in the business as it is now. A browser is one device of one
 * business: when it is enrolled already, it stays what it is and the code is not used.
 */
export async function enrol(
  db: DeviceDatabase,
  code: string,
  deviceName: string,
  makeTransport: (token: string) => Transport = (token) => new Transport(token),
  daybook: DeviceDaybook = new DeviceDaybook(db),
): Promise<EnrolResult> {
  const there = await db.read('identity');
  if (there !== undefined) return { ok: true, identity: there };
  const mine = (await db.read('enrolling')) ?? { device: v4(), token: randomToken() };
  await db.write('enrolling', mine);
  const transport = makeTransport(mine.token);
  const enrolled = await transport.enrol(code, mine.device);
  if (enrolled.came !== 'answer') return { ok: false, asked: enrolled };
  const started = await transport.start();
  if (started.came !== 'answer') return { ok: false, asked: started };
  const { device, token } = mine;
  const identity: Identity = { device, token, ...enrolled.answer };
  await takeIn(db, identity, started.answer);
  const { number } = identity;
  const body = { id: device, name: deviceName, number, event: null, drawer: null };
  await daybook.append(() => ({
    ok: true,
    drafts: [draft('device.set', newId(), null, body)],
  }));
  return { ok: true, identity };
}

/** Everything the device starts from, and who it is: all of it or nothing, with what `also` writes. */
export async function takeIn(
  db: DeviceDatabase,
  identity: Identity,
  answer: StartAnswer,
  choices: Choices = NO_CHOICES,
  founding: Founding | null = null,
  also: () => Promise<void> = () => Promise.resolve(),
): Promise<void> {
  const { position, mark, received, clock } = answer;
  await db.transaction('rw', db.tables, async () => {
    for (const table of deviceTables) await db.table(table).bulkPut(answer.rows[table] ?? []);
    await db.write('standing', {
      ...NO_STANDING,
      position,
      mark,
      received,
      clock,
      photosAfter: '',
    });
    await db.write('sums', declaredSums());
    await db.write('identity', identity);
    await db.write('choices', choices);
    if (founding !== null) await db.write('founding', founding);
    await db.meta.delete('enrolling');
    await also();
  });
}

export function randomToken(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(32));
  return Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');
}

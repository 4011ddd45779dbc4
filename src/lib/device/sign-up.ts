/** A business begins on this browser: account, first device and first entries, in one go. */
import { v4 } from 'uuid';
import { enrolAnswerSchema } from '../core/daybook/sync-messages';
import { CLOCK_AT_REST } from '../core/daybook/clock';
import { draft } from '../core/daybook/kinds';
import { foundBusiness, type FoundBusiness } from '../core/founding/found-business';
import { DeviceDaybook } from './daybook';
import { NO_CHOICES, type DeviceDatabase } from './database';
import { randomToken, takeIn, type EnrolResult } from './enrol';
import { newId } from './new-id';
import { askServer } from './sync/ask-server';

export interface SigningUp {
  readonly email: string;
  readonly password: string;
  readonly owner: string;
  readonly founding: Omit<FoundBusiness, 'newId' | 'owner'>;
  readonly deviceName: string;
}

/** The server knows nothing of this browser's database, and would not say so. */
const KNOWN = {
  code: 'device/known',
  message: 'This browser is a till of another business already; use another browser or profile.',
};

/**
 * Can be tried again at any point: what the server was asked for is kept until the first entries are
 * on disk, and it answers the same device the same.
 */
export async function signUp(db: DeviceDatabase, command: SigningUp): Promise<EnrolResult> {
  if ((await db.read('identity')) !== undefined) {
    return { ok: false, asked: { came: 'refusal', refusal: KNOWN } };
  }
  const mine = (await db.read('enrolling')) ?? { device: v4(), token: randomToken() };
  // Of the person; what the account is called, only the server knows.
  const { owner = v4(), key = randomToken() } = mine;
  await db.write('enrolling', { ...mine, owner, key });
  const { email, password, founding } = command;
  const { device, token } = mine;
  const body = { email, password, business: founding.name, device, token, key };
  const asked = await askServer({ path: '/api/account/sign-up', body }, enrolAnswerSchema);
  if (asked.came !== 'answer') return { ok: false, asked };
  const identity = { device, token, ...asked.answer };
  const start = { position: 0, mark: '', received: {}, clock: CLOCK_AT_REST, rows: {} };
  const person = { id: owner, name: command.owner };
  const kept = { ...founding, owner: person, deviceName: command.deviceName };
  await takeIn(db, identity, start, { ...NO_CHOICES, by: owner }, kept);
  await finishFounding(db);
  return { ok: true, identity };
}

/** Writes the first entries if that is still to be done: right away, and at every start. */
export async function finishFounding(db: DeviceDatabase): Promise<void> {
  const [identity, founding, head] = await Promise.all([
    db.read('identity'),
    db.read('founding'),
    db.read('head'),
  ]);
  if (identity === undefined || founding === undefined) return;
  if (head === undefined) {
    const { device, number } = identity;
    const named = { id: device, name: founding.deviceName, number, event: null, drawer: null };
    await new DeviceDaybook(db).append(() => ({
      ok: true,
      drafts: [draft('device.set', newId(), null, named), ...foundBusiness({ ...founding, newId })],
    }));
  }
  await db.meta.delete('founding');
}

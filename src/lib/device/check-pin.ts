/** Checking a PIN with no network: every wrong one is noted before it is looked at. */
import { pinNeeds, type PinHash } from '../core/people/pin';
import { afterWrong, NO_TRIES, stillToWait } from '../core/people/pin-tries';
import type { DeviceDatabase } from './database';
import { isPinOf } from './pin-hash';

export type PinChecked =
  /** What is to be done about the PIN, which was right. */
  | { readonly ok: true; readonly needs: ReturnType<typeof pinNeeds> }
  /** Milliseconds until another one is looked at; 0 when at once. */
  | { readonly ok: false; readonly code: 'pin/wrong' | 'pin/wait'; readonly wait: number };

export interface PinHolder {
  readonly id: string;
  readonly role: string;
  readonly rights: readonly string[];
  readonly pin: PinHash | null;
}

/**
 * Whether this is the person's PIN; somebody without one needs none. The try is written down as a
 * wrong one first, so that closing the browser in the middle wins nothing.
 * @param now Milliseconds since 1970.
 */
export async function checkPin(
  db: DeviceDatabase,
  business: string,
  person: PinHolder,
  pin: string,
  now: number,
): Promise<PinChecked> {
  if (person.pin === null) return { ok: true, needs: 'nothing' };
  const noted = await db.transaction('rw', db.meta, async () => {
    const all = (await db.read('pinTries')) ?? {};
    const tries = all[person.id] ?? NO_TRIES;
    const wait = stillToWait(tries, now);
    if (wait > 0) return { wait, after: tries };
    const after = afterWrong(tries, now);
    await db.write('pinTries', { ...all, [person.id]: after });
    return { wait, after };
  });
  if (noted.wait > 0) return { ok: false, code: 'pin/wait', wait: noted.wait };
  if (!(await isPinOf(person.pin, pin, business))) {
    return { ok: false, code: 'pin/wrong', wait: stillToWait(noted.after, now) };
  }
  await db.transaction('rw', db.meta, async () => {
    const { [person.id]: _right, ...others } = (await db.read('pinTries')) ?? {};
    await db.write('pinTries', others);
  });
  return { ok: true, needs: pinNeeds(pin, person.pin, person) };
}

/** A business in the database of a running till that trades, so that what is pushed is judged. */
import { randomBytes } from 'node:crypto';
import { BUSINESS, deviceId, personId } from '../../src/lib/core/testing/made-up-business';
import type { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import type { Entry } from '../../src/lib/core/daybook/entry';
import { foundedDrafts } from '../../src/lib/core/testing/founded';
import { Enrolment } from '../../src/lib/server/access/enrolment';
import { append } from '../../src/lib/server/daybook/append';
import type { RunningTill } from '../support/running-till';

export type Bench = Pick<RunningTill, 'database'>;

/** On a day that the event of the tests has, in its morning. */
export const NOW = Date.UTC(2026, 10, 22, 10);

/** Who trades, and with what. */
export async function found(till: Bench, desk: DeviceWriter): Promise<void> {
  const device = deviceId(desk.number);
  await enrol(till, desk.number);
  const [owner, ...rest] = foundedDrafts(desk);
  const send = async (entries: readonly Entry[]): Promise<void> => {
    const { kept, refused } = await append(till.database, { business: BUSINESS, device }, entries);
    if (refused !== null || kept.length > 0) throw new Error(JSON.stringify({ refused, kept }));
  };
  await send(desk.append([owner!], NOW));
  await send(desk.append(rest, NOW, personId(1)));
}

/**
 * A device with the number that its sales bear: others would be doubted, and a loose end each.
 * @returns The token of the device.
 */
export async function enrol(till: Bench, number: number): Promise<string> {
  const device = deviceId(number);
  const enrolment = new Enrolment(till.database);
  const token = randomBytes(32).toString('hex');
  const code = await enrolment.makeCode(BUSINESS, Date.now(), 60_000);
  await enrolment.enrol(code, device, token, Date.now());
  await till.database.sequelize.query(
    'UPDATE access_devices SET number = ? WHERE business = ? AND device = ?',
    { replacements: [number, BUSINESS, device] },
  );
  return token;
}

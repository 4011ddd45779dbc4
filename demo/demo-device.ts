/** A device of the demo: it writes entries and sends them through the ordinary append. */
import { randomBytes } from 'node:crypto';
import { v7 } from 'uuid';
import {
  chainEntry,
  EMPTY_CHAIN,
  headAfter,
  type ChainHead,
  type Draft,
} from '../src/lib/core/daybook/chain';
import { clockOf } from '../src/lib/core/daybook/clock';
import type { Entry } from '../src/lib/core/daybook/entry';
import { draft } from '../src/lib/core/daybook/kinds';
import { MOST_PUSHED } from '../src/lib/core/daybook/sync-messages';
import type { Enrolment } from '../src/lib/server/access/enrolment';
import { append } from '../src/lib/server/daybook/append';
import { modelsOn } from '../src/lib/server/database/models';
import type { Database } from '../src/lib/server/database/database';

export const newId = (): string => v7();

export class DemoDevice {
  #head: ChainHead;
  readonly #waiting: Entry[] = [];

  private constructor(
    readonly database: Database,
    readonly business: string,
    readonly device: string,
    readonly number: number,
    head: ChainHead,
  ) {
    this.#head = head;
  }

  /** Enrols a new device, or goes on where it left off if it is enrolled already. */
  static async enrol(
    enrolment: Enrolment,
    business: string,
    device: string,
    name: string,
    now: number,
  ): Promise<DemoDevice> {
    const { database } = enrolment;
    const { devices } = modelsOn(database.sequelize);
    const known = await devices.findOne({ where: { business, device } });
    if (known !== null) {
      const clock = known.stamp === '' ? EMPTY_CHAIN.clock : clockOf(known.stamp);
      const head = { seq: known.seq, hash: known.hash, clock };
      return new DemoDevice(database, business, device, known.number, head);
    }
    const code = await enrolment.makeCode(business, now, 60_000);
    const token = randomBytes(32).toString('hex');
    const enrolled = await enrolment.enrol(code, device, token, now);
    if (!enrolled.ok)
      throw new Error(`the demo's own device was refused: ${enrolled.refusal.code}`);
    const made = new DemoDevice(database, business, device, enrolled.number, EMPTY_CHAIN);
    const body = { id: device, name, number: enrolled.number, event: null, drawer: null };
    made.write([draft('device.set', newId(), null, body)], now, null);
    return made;
  }

  /** The last entry that it has written. */
  get head(): number {
    return this.#head.seq;
  }

  /** Writes entries; they are sent with the next `send`. */
  write(drafts: readonly Draft[], now: number, by: string | null): void {
    for (const each of drafts) {
      const { business, device } = this;
      const entry = chainEntry(each, this.#head, { business, device, by, now });
      this.#head = headAfter(entry);
      this.#waiting.push(entry);
    }
  }

  /** @throws {Error} If anything was refused or could not be applied: the demo must be whole. */
  async send(): Promise<void> {
    while (this.#waiting.length > 0) {
      const batch = this.#waiting.splice(0, MOST_PUSHED);
      const { refused, kept } = await append(this.database, this, batch);
      const wrong = refused?.message ?? kept[0]?.message;
      if (wrong !== undefined) throw new Error(`the demo's own entry was not taken: ${wrong}`);
    }
  }
}

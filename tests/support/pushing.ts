/** A business with two devices whose entries are pushed to the server and judged there, for the server tests. */
import assert from 'node:assert/strict';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { draft, privateDraft } from '../../src/lib/core/daybook/kinds';
import type { WayToPay } from '../../src/lib/core/payment/ways';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { foundedDrafts } from '../../src/lib/core/testing/founded';
import {
  BUSINESS,
  customerId,
  deviceId,
  personBody,
  personId,
} from '../../src/lib/core/testing/made-up-business';
import { BookReader } from '../../src/lib/server/books/read-books';
import { append } from '../../src/lib/server/daybook/append';
import { testDatabase, type TestDatabase } from './test-database';

export const NOW = Date.UTC(2026, 10, 22, 10);
export const [OWNER, HELPER] = [personId(1), personId(3)];

/** One for each test file: its devices go on counting. */
export class Pushing {
  readonly writers = [1, 2].map((n) => new DeviceWriter(n));
  #database: TestDatabase | null = null;
  #books: BookReader | null = null;

  get newId(): () => string {
    return this.writers[0]!.newId;
  }

  get t(): TestDatabase {
    if (this.#database === null) throw new Error('begin() comes first');
    return this.#database;
  }

  get books(): BookReader {
    if (this.#books === null) throw new Error('begin() comes first');
    return this.#books;
  }

  /** Founds the business, and sets up what else is given; with a helper who may do nothing in particular. */
  async begin(more: readonly Draft[] = []): Promise<void> {
    this.#database = await testDatabase();
    this.#books = new BookReader(this.t.database);
    for (const n of [1, 2]) await this.t.enrol(BUSINESS, deviceId(n));
    const [owner, ...rest] = foundedDrafts(this.writers[0]!);
    assert.deepEqual(await this.push([owner!], null), []);
    assert.deepEqual(await this.push(rest), []);
    const helper = draft('staff.set', this.newId(), null, personBody(3, []));
    assert.deepEqual(await this.push([...more, helper]), []);
  }

  /** Mail goes out for owners who read theirs. */
  async ownerReadsMail(): Promise<void> {
    await this.t.database.sequelize.query(
      "INSERT INTO access_owners (owner, business, email, password, verified, made) VALUES ('o', ?, 'owner@larkmoss.example', '', 1, 1)",
      { replacements: [BUSINESS] },
    );
  }

  /** @returns What was found against them. */
  readonly push = async (
    drafts: readonly Draft[],
    by: string | null = OWNER,
    device = 1,
    at = NOW,
  ): Promise<readonly string[]> => {
    const entries = this.writers[device - 1]!.append(drafts, at, by);
    const { kept, refused } = await append(
      this.t.database,
      { business: BUSINESS, device: deviceId(device) },
      entries,
      at,
    );
    assert.equal(refused, null);
    return kept.map(({ code }) => code);
  };

  readonly way = ({ setStamp: _stamp, ...body }: WayToPay): Draft =>
    draft('way.set', this.newId(), null, body);

  readonly customer = (
    n: number,
    agreed: { readonly terms?: number; readonly creditLimit?: number | null } = {},
  ): Draft =>
    privateDraft(
      'customer.set',
      this.newId(),
      { id: customerId(n), discount: '0', terms: 0, creditLimit: 0, isActive: true, ...agreed },
      'sixteen-letters-',
      {
        ...{ name: `Customer ${String(n)}`, email: '', phone: '', company: '' },
        ...{ address: '', taxNumber: '', note: '' },
      },
    );
}

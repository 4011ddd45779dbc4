/** The address that calendars follow: one at a time, hashed, of one business alone, and gone once it is withdrawn. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { BUSINESS, idOf } from '../../src/lib/core/testing/made-up-business';
import { CalendarAddresses } from '../../src/lib/server/access/calendar-addresses';
import { select } from '../../src/lib/server/database/select';
import { testDatabase, type TestDatabase } from '../support/test-database';

let t: TestDatabase;
let addresses: CalendarAddresses;
before(async () => {
  t = await testDatabase();
  addresses = new CalendarAddresses(t.database);
});
after(() => t.end());

describe('the address of a calendar', () => {
  it('is of one business, kept hashed, and good until there is another one', async () => {
    assert.equal(await addresses.madeAt(BUSINESS), null);
    const first = await addresses.give(BUSINESS, 0);
    const other = await addresses.give(idOf(1, 2), 0);
    assert.match(first, /^[0-9a-f]{64}$/);
    assert.equal(await addresses.businessOf(first), BUSINESS);
    assert.equal(await addresses.businessOf(other), idOf(1, 2));
    const rows = await select<{ token: string }>(
      t.database,
      'SELECT token FROM access_calendars',
      [],
    );
    assert.ok(rows.every(({ token }) => token !== first && token !== other));
    const second = await addresses.give(BUSINESS, 1000);
    assert.equal(await addresses.businessOf(first), null);
    assert.equal(await addresses.businessOf(second), BUSINESS);
    assert.equal(await addresses.madeAt(BUSINESS), '1970-01-01T00:00:01.000Z');
  });

  it('is gone once it is withdrawn, and the others stay', async () => {
    const token = await addresses.give(BUSINESS, 0);
    const other = await addresses.give(idOf(1, 2), 0);
    await addresses.withdraw(BUSINESS);
    assert.equal(await addresses.businessOf(token), null);
    assert.equal(await addresses.madeAt(BUSINESS), null);
    assert.equal(await addresses.businessOf(other), idOf(1, 2));
    assert.equal(await addresses.businessOf(''), null);
  });
});

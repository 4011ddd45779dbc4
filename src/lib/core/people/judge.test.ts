import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { draft, type KnownEntry } from '../daybook/kinds';
import { chainEntry, EMPTY_CHAIN, type Draft } from '../daybook/chain';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import {
  BUSINESS,
  customerDraft,
  customerId,
  deviceId,
  idOf,
  item,
  personBody,
  personId,
} from '../testing/made-up-business';
import { eraseCustomer } from '../customer/set-customer';
import { breachOf, isBarred, type PersonWithLimits } from './judge';
import { PeopleHistory } from './people-history';
import { RIGHTS, type Right } from './rights';

const NOW = Date.UTC(2026, 10, 22, 10);
const OWNER = idOf(8, 1);
const LEAD = idOf(8, 2);
const HELPER = idOf(8, 3);
const LEFT = idOf(8, 4);
const SECOND = idOf(8, 5);

const who = (id: string, role: string, rights: readonly Right[] = [], isActive = true) =>
  ({ id, role, isActive, rights, discountUpTo: role === 'helper' ? '5' : '0' }) as PersonWithLimits;
const PIN = { hash: 'a'.repeat(64), iterations: 1000, salt: 'salt' };
const people = new Map(
  [
    who(OWNER, 'owner'),
    who(LEAD, 'lead', ['set-up', 'discount.over', 'refund']),
    who(SECOND, 'lead', ['set-up']),
    who(HELPER, 'helper'),
    who(LEFT, 'owner', [], false),
  ].map((each) => [each.id, each]),
);

function entry(what: Draft, by: string | null, lentBy?: string, now = NOW): KnownEntry {
  const writer = { business: BUSINESS, device: deviceId(1), by, lentBy, now };
  const read = readEntry(chainEntry(what, EMPTY_CHAIN, writer));
  assert.ok(read.ok, JSON.stringify(read));
  return read.entry;
}
const lacked = (what: Draft, by: string | null, lentBy?: string): string | null =>
  breachOf(entry(what, by, lentBy), {
    person: (id) => people.get(id),
    pin: (id) => (id === LEAD ? PIN : null),
  })?.right ?? null;

const { setStamp: _stamp, ...goods } = item(1, 450);
const price = draft('item.set', idOf(9, 1), null, { ...goods, barcodes: [], taxes: [] });
const staff = (n: number, rights: readonly Right[], role: 'owner' | 'helper' = 'helper') =>
  draft('staff.set', idOf(9, 2), null, { ...personBody(n, rights), role });
const named = (device: number) =>
  draft('device.set', idOf(9, 3), null, {
    id: deviceId(device),
    name: 'Phone',
    number: 1,
    event: null,
    drawer: null,
  });
const writer = new DeviceWriter(1);
const erasure = eraseCustomer(writer.newId, [customerId(1)]).drafts[0]!;
function customer(discount: string, creditLimit: number | null): Draft {
  const noted = customerDraft(1, 'Wren', writer.newId);
  return { ...noted, body: { ...noted.body, discount, creditLimit } };
}
const sale = writer.sale([[1, 2]], 0, NOW).at(-1)!;

/** The sale with `off` minor units taken off its only line of £2.10. */
function discounted(off: number): Draft {
  const [line] = sale.body['lines'] as Record<string, number>[];
  const lines = [{ ...line, discount: off, net: line!['gross']! - off }];
  return { ...sale, body: { ...sale.body, lines } };
}

const changed = (id: string, change: object): Draft => {
  const { role, isActive, rights, discountUpTo } = people.get(id)!;
  const body = { id, name: 'Same', role, isActive, rights, discountUpTo, ...change };
  return draft('staff.set', idOf(9, 5), null, body as never);
};
const pinOf = (person: string): Draft =>
  draft('pin.set', idOf(9, 6), null, { person, pin: { ...PIN, hash: 'c'.repeat(64) } });

/** The sale with lines of these quantities and totals. */
function sold(lines: readonly (readonly [quantity: number, total: number])[]): Draft {
  const [line] = sale.body['lines'] as Record<string, unknown>[];
  const all = lines.map(([quantity, total]) => ({
    ...line,
    quantity,
    gross: total,
    net: total,
    total,
    tax: {},
  }));
  const total = lines.reduce((sum, [, each]) => sum + each, 0);
  return { ...sale, body: { ...sale.body, lines: all, total, taxes: [] } };
}

describe('who may write what', () => {
  const rules: readonly (readonly [
    string,
    Draft,
    string | null,
    string | undefined,
    string | null,
  ])[] = [
    ['an owner changes a price', price, OWNER, undefined, null],
    ['a lead with the right to it changes a price', price, LEAD, undefined, null],
    ['a helper does not', price, HELPER, undefined, 'set-up'],
    ['nobody at all does not', price, null, undefined, 'set-up'],
    ['somebody who has left does not', price, LEFT, undefined, 'set-up'],
    ['a stranger does not', price, idOf(8, 99), undefined, 'set-up'],
    ['a helper to whom an owner lends the right does', price, HELPER, OWNER, null],
    ['a helper to whom another helper lends it does not', price, HELPER, HELPER, 'set-up'],
    ['a helper to whom somebody who has left lends it does not', price, HELPER, LEFT, 'set-up'],
    ['a helper sells', sale, HELPER, undefined, null],
    ['nobody signed in sells', sale, null, undefined, null],
    ['a helper gives the 5 % that everybody may', discounted(11), HELPER, undefined, null],
    ['a helper gives more', discounted(12), HELPER, undefined, 'discount.over'],
    ['a helper gives more, and a lead lends the right', discounted(99), HELPER, LEAD, null],
    ['nobody signed in gives any', discounted(1), null, undefined, 'discount.over'],
    ['a device names itself', named(1), null, undefined, null],
    ['a helper names another device', named(2), HELPER, undefined, 'set-up'],
    ['a helper notes a customer down', customer('0', 0), HELPER, undefined, null],
    ['a helper agrees what everybody may give', customer('5', 0), HELPER, undefined, null],
    ['a helper agrees more', customer('6', 0), HELPER, undefined, 'set-up'],
    ['a helper gives credit', customer('0', 10_000), HELPER, undefined, 'set-up'],
    ['a helper gives credit without limit', customer('0', null), HELPER, undefined, 'set-up'],
    ['a lead gives credit', customer('0', null), LEAD, undefined, null],
    ['a helper erases a customer', erasure, HELPER, undefined, 'set-up'],
    ['a lead sets up a helper', staff(1, ['set-up']), LEAD, undefined, null],
    [
      'a lead gives away a right they do not have',
      staff(1, ['cash.out']),
      LEAD,
      undefined,
      'cash.out',
    ],
    ['a lead makes an owner', staff(1, [], 'owner'), LEAD, undefined, 'set-up'],
    ['an owner makes an owner', staff(1, [], 'owner'), OWNER, undefined, null],
    [
      'one who may set up raises their own discount',
      changed(SECOND, { discountUpTo: '50' }),
      SECOND,
      undefined,
      'discount.over',
    ],
    [
      'one who may set up raises a helper’s',
      changed(HELPER, { discountUpTo: '6' }),
      SECOND,
      undefined,
      'discount.over',
    ],
    [
      'a lead who may give any discount does',
      changed(HELPER, { discountUpTo: '6' }),
      LEAD,
      undefined,
      null,
    ],
    ['a lead leaves it as it was', changed(HELPER, { discountUpTo: '5' }), LEAD, undefined, null],
    ['an owner raises it', changed(HELPER, { discountUpTo: '50' }), OWNER, undefined, null],
    ['a lead sets the PIN of a new helper', pinOf(HELPER), LEAD, undefined, null],
    ['a lead sets an owner’s PIN', pinOf(OWNER), LEAD, undefined, 'set-up'],
    ['a helper sets a colleague’s PIN', pinOf(LEFT), HELPER, undefined, 'set-up'],
    ['a helper sets their own', pinOf(HELPER), HELPER, undefined, null],
    ['an owner sets a lead’s, who forgot it', pinOf(LEAD), OWNER, undefined, null],
    ['another lead sets a lead’s', pinOf(LEAD), SECOND, undefined, 'set-up'],
    [
      'another lead does so with the person',
      changed(LEAD, { pin: { ...PIN, hash: 'b'.repeat(64) } }),
      SECOND,
      undefined,
      'set-up',
    ],
    ['goods come back', sold([[-1000, -105]]), HELPER, undefined, 'refund'],
    [
      'goods come back to somebody with the right',
      sold([
        [-1000, -105],
        [2000, 210],
      ]),
      LEAD,
      undefined,
      null,
    ],
    [
      'a sale that comes to less than nothing',
      sold([[-1000, -105]]),
      LEAD,
      undefined,
      'refund.unlinked',
    ],
  ];
  for (const [rule, what, by, lentBy, is] of rules) {
    it(`${rule}: ${is === null ? 'yes' : `no, for want of ${is}`}`, () =>
      assert.equal(lacked(what, by, lentBy), is));
  }

  it('a lead does not turn an owner into a helper', () => {
    const body = { ...personBody(1, []), id: OWNER };
    assert.equal(lacked(draft('staff.set', idOf(9, 4), null, body), LEAD), 'set-up');
  });
  it('set-up is barred, and what happened at the stall is not', () => {
    assert.deepEqual(
      [isBarred(entry(price, HELPER)), isBarred(entry(sale, HELPER))],
      [true, false],
    );
  });
});

describe('judging by the rights of the time', () => {
  const person = (rights: readonly Right[], minutes: number): KnownEntry =>
    entry(staff(3, rights), OWNER, undefined, NOW + minutes * 60_000);
  const change = (minutes: number): KnownEntry =>
    entry(price, personId(3), undefined, NOW + minutes * 60_000);

  it('nobody is asked while the business is being founded, and everybody afterwards', () => {
    const history = new PeopleHistory();
    assert.equal(history.judge(entry(price, null)), null);
    assert.equal(history.judge(entry(staff(1, [...RIGHTS], 'owner'), null)), null);
    assert.equal(history.judge(entry(price, null))?.right, 'set-up');
    assert.equal(history.judge(entry(price, personId(1))), null);
  });

  it('a right that was taken away later still counts for what was written before', () => {
    const history = new PeopleHistory();
    for (const each of [person(['set-up'], 0), person([], 60)]) {
      assert.ok(each.kind === 'staff.set');
      history.add(each);
    }
    assert.deepEqual(
      [change(-5), change(30), change(90)].map((each) => history.judge(each)?.right ?? null),
      [null, null, 'set-up'],
    );
  });

  it('a barred change of a person gives no rights', () => {
    const history = new PeopleHistory();
    history.judge(entry(staff(1, [...RIGHTS], 'owner'), null));
    assert.equal(history.judge(entry(staff(3, ['set-up']), personId(3)))?.right, 'set-up');
    assert.equal(history.judge(change(1))?.right, 'set-up');
  });
});

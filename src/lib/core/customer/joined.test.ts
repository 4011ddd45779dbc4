import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Row } from '../books/tables';
import { draft } from '../daybook/kinds';
import { readEntry } from '../daybook/read-entry';
import { overspends } from '../held/overspends';
import { sum } from '../money/units';
import { arbitraryDaybook, DeviceWriter } from '../testing/arbitrary-daybook';
import { booksOf } from '../testing/books-of';
import { customerDraft, customerId, idOf } from '../testing/made-up-business';
import { findCustomers } from './find-customers';
import { detailsOfBoth, joinCustomers, takeApart, type JoinCustomers } from './join-customers';
import { byRecord, customerIn, Joined, mayKeep, namesOf, people, recordsAbout } from './joined';
import { byContact, maybeSame } from './same-contact';
import { setCustomer } from './set-customer';

const now = Date.UTC(2026, 10, 22, 9);
const [A, B, C, D] = [1, 2, 3, 4].map(customerId) as [string, string, string, string];
const row = (id: string, joinedInto: string | null = null, isErased = false) => ({
  ...{ id, joinedInto, isErased },
});
const newSalt = (): string => 'sixteen-letters-';

/** Four customers as a device has noted them down, and what is said of them besides. */
function customers(...said: readonly (readonly [string, string | null])[]): Row<'customers'>[] {
  const writer = new DeviceWriter(1);
  const noted = [1, 2, 3, 4].map((n) => customerDraft(n, `Customer${String(n)}`, writer.newId));
  const joins = said.map(([customer, into]) =>
    draft('customer.joined', writer.newId(), null, { customer, into }),
  );
  const entries = writer.append([...noted, ...joins], now, null);
  return booksOf(entries).rows('customers');
}

describe('records of one person', () => {
  it('go by the one that they are joined to, and by what that is joined to', () => {
    const joined = new Joined([row(A, B), row(B, C), row(C), row(D)]);
    for (const id of [A, B, C]) {
      assert.equal(joined.of(id), C);
      assert.deepEqual(joined.records(id), [C, B, A]);
    }
    assert.deepEqual(joined.records(D), [D]);
    assert.ok(joined.isSame(A, B) && joined.isSame(D, D) && joined.isSame(null, null));
    assert.ok(!joined.isSame(A, D) && !joined.isSame(A, null));
  });

  it('have one account of each sort; a voucher’s and an order’s is nobody’s', () => {
    const joined = new Joined([row(A, B), row(B)]);
    assert.equal(joined.account(`credit:${A}`), `credit:${B}`);
    assert.deepEqual(joined.accounts(`points:${B}`), [`points:${B}`, `points:${A}`]);
    for (const account of ['voucher:CARD1', `deposit:${A}`, 'takings'])
      assert.deepEqual(joined.accounts(account), [account]);
    assert.deepEqual([`customer:${A}`, 'voucher:CARD1'].map(customerIn), [A, null]);
  });

  it('a circle that two devices out of touch made is one person, the same for everybody', () => {
    const circle = new Joined([row(A, B), row(B, C), row(C, B), row(D)]);
    for (const id of [A, B, C]) assert.deepEqual(circle.of(id), B);
    assert.deepEqual(circle.records(C), [B, A, C]);
  });

  it('nobody is one with somebody who was forgotten', () => {
    assert.equal(new Joined([row(A, B), row(B, null, true)]).of(A), A);
    assert.equal(new Joined([row(A, B)]).of(A), A);
    assert.equal(new Joined([row(A, B, true), row(B)]).of(A), A);
  });

  it('may be kept as they said last, on whichever record', () => {
    const said = (consentStamp: string, keep: boolean) => ({ consentStamp, mayKeep: keep });
    assert.equal(mayKeep([said('b', true), said('c', false), said('a', true)]), false);
    assert.equal(mayKeep([said('', false), said('a', true)]), true);
    assert.equal(mayKeep([]), false);
  });

  it('of any daybook: every record is one person’s, and nothing that they have is lost or doubled', () => {
    fc.assert(
      fc.property(arbitraryDaybook, (entries) => {
        const books = booksOf(entries.filter((entry) => readEntry(entry).ok));
        const rows = books.rows('customers');
        const joined = new Joined(rows);
        const found = people(rows).flatMap(({ id }) => joined.records(id));
        assert.deepEqual(found.toSorted(), rows.map(({ id }) => id).sort());
        const balances = new Map(
          books.rows('heldSums').map(({ account, amount }) => [account, amount]),
        );
        const own = [...balances.keys()].filter((account) => customerIn(account) !== null);
        const theirs = new Set(own.map((account) => joined.account(account)));
        const together = [...theirs].flatMap((account) => joined.accounts(account));
        assert.equal(
          sum(together.map((account) => balances.get(account) ?? 0)),
          sum(own.map((account) => balances.get(account)!)),
        );
        assert.equal(new Set(together).size, together.length);
      }),
    );
  });

  it('taken apart, each is as it was', () => {
    fc.assert(
      fc.property(arbitraryDaybook, (entries) => {
        const writer = new DeviceWriter(9);
        const apart = booksOf(entries)
          .rows('customers')
          .flatMap(({ id }) => takeApart(writer.newId, id).drafts);
        const after = booksOf([...entries, ...writer.append(apart, now + 1e9, null)]);
        const before = booksOf(entries.filter(({ kind }) => kind !== 'customer.joined'));
        assert.deepEqual(after.rows('heldSums'), before.rows('heldSums'));
        assert.deepEqual(after.rows('pointSums'), before.rows('pointSums'));
        assert.ok(new Joined(after.rows('customers')).isEmpty);
      }),
      { numRuns: 40 },
    );
  });

  it('are read in as few questions as there are steps, whichever is asked for', async () => {
    const rows = [row(A, B), row(B, C), row(C), row(D)];
    let questions = 0;
    const about = async (id: string) => {
      questions = 0;
      const found = await recordsAbout([id], {
        byId: (ids) => {
          questions += 1;
          return Promise.resolve(rows.filter((each) => ids.includes(each.id)));
        },
        into: (ids) => Promise.resolve(rows.filter((each) => ids.includes(each.joinedInto ?? ''))),
      });
      return found.map((each) => each.id).sort();
    };
    for (const id of [A, B, C]) assert.deepEqual(await about(id), [A, B, C]);
    assert.deepEqual(await about(D), [D]);
    assert.equal(questions, 1);
    assert.deepEqual(await about(idOf(31, 9)), []);
  });
});

describe('joining two records', () => {
  const all = customers();
  let ids = 0;
  const join = (more: Partial<JoinCustomers>) =>
    joinCustomers({
      ...{ newId: () => idOf(41, (ids += 1)), newSalt, customer: A, into: B, customers: all },
      ...more,
    });
  const refusals: readonly (readonly [string, Partial<JoinCustomers>, string])[] = [
    ['with themselves', { into: A }, 'join/same'],
    ['with one who is not known', { into: idOf(31, 9) }, 'join/unknown'],
    [
      'with one who was forgotten',
      { customers: all.map((each) => (each.id === B ? { ...each, isErased: true } : each)) },
      'join/forgotten',
    ],
    ['that are joined already', { customers: customers([A, B]) }, 'join/already'],
    ['that are joined by a third', { customers: customers([A, C], [B, C]) }, 'join/already'],
  ];
  for (const [what, more, code] of refusals)
    it(`${what}: ${code}`, () => {
      const made = join(more);
      assert.ok(!made.ok);
      assert.equal(made.refusal.code, code);
    });

  it('joins whom they go by, not the record that was tapped', () => {
    const made = join({ customers: customers([A, C]), into: D });
    assert.ok(made.ok);
    assert.deepEqual(made.drafts[0]!.body, { customer: C, into: D });
  });

  it('what is not known of the one comes along from the other, and what is agreed stays', () => {
    const [a, b] = [
      { ...all[0]!, email: 'a@green.example', phone: '1', note: 'gate code 4', code: 'C-1' },
      {
        ...all[1]!,
        email: 'b@green.example',
        phone: '',
        discount: '5',
        note: 'rings twice',
        terms: 30,
      },
    ];
    const made = join({ customers: [a, b] });
    assert.ok(made.ok && made.drafts.length === 2);
    const [, set] = made.drafts;
    assert.deepEqual(set!.body, {
      ...{ id: B, discount: '5', terms: 30, creditLimit: b.creditLimit, isActive: true },
    });
    const who = set!.private!.data;
    assert.deepEqual(
      { ...who },
      {
        ...{ name: 'Customer2', email: 'b@green.example', phone: '1', code: 'C-1' },
        ...{ company: '', address: '3 Sluice Lane', taxNumber: '' },
        note: 'rings twice\ngate code 4',
      },
    );
    // Nothing to add: it is joined, and no more is said.
    const bare = join({ customers: [{ ...b, id: A, name: 'B.', code: '' }, b] });
    assert.ok(bare.ok && bare.drafts.length === 1);
    const long = { ...b, note: 'x'.repeat(490) };
    assert.equal(detailsOfBoth(long, a).note, long.note);
  });
});

describe('whoever has several records', () => {
  const all = customers([A, B]).map((each) => ({
    ...each,
    email: `${each.id.slice(-1)}@green.example`,
    phone: '',
  }));
  const [a, b] = [all[0]!, all[1]!];

  it('is found once, by what stands on any of them', () => {
    assert.deepEqual(findCustomers('Customer1', all), [b]);
    assert.deepEqual(findCustomers('customer', all), [b, all[2], all[3]]);
    const away = all.map((each) => (each.id === B ? { ...each, isActive: false } : each));
    assert.deepEqual(findCustomers('Customer1', away), []);
    const find = byContact(all, 'en-GB');
    assert.deepEqual(find({ name: '', email: a.email, phone: '' }), [b]);
    assert.deepEqual(people(all), [b, all[2], all[3]]);
    assert.equal(namesOf(all).get(A), 'Customer2');
    assert.equal(byRecord(all).get(D), all[3]);
  });

  it('keeps the card that either is known by; nobody else has it', () => {
    const carded = all.map((each) => (each.id === A ? { ...each, code: 'C-7' } : each));
    const set = (id: string) =>
      setCustomer({
        ...{ newId: () => idOf(41, (1e6 as number) + 1), newSalt, id, customers: carded },
        who: { ...b, name: 'Rose', code: 'c-7' },
        ...{ discount: '', terms: '', creditLimit: 0, isActive: true, consent: null },
      });
    assert.ok(set(B).ok);
    assert.ok(!set(C).ok);
  });

  it('may be the same as whoever has that mail or telephone on a record of their own', () => {
    const near = all.map((each) => ({ ...each, phone: each.id === D ? '' : '01632 960 123' }));
    const find = (id: string, among = near) =>
      maybeSame(
        among.find((each) => each.id === id)!,
        among,
        'en-GB',
      ).map(({ customer, by }) => [customer.id, by]);
    assert.deepEqual(find(B), [[C, 'telephone']]);
    assert.deepEqual(find(C), [[B, 'telephone']]);
    assert.deepEqual(find(D), []);
    const mailed = near.map((each) =>
      each.id === A ? each : { ...each, email: 'Sam@example.com' },
    );
    const upper = mailed.map((each) =>
      each.id === D ? { ...each, email: ' sam@EXAMPLE.com' } : each,
    );
    assert.deepEqual(find(B, upper), [
      [C, 'mail'],
      [D, 'mail'],
    ]);
    assert.deepEqual(
      find(
        B,
        upper.map((each) => (each.id === D ? { ...each, isErased: true } : each)),
      ),
      [[C, 'mail']],
    );
  });

  it('cannot spend twice what they have once, from two accounts at a time either', () => {
    const joined = new Joined(all);
    const balances = new Map([
      [`credit:${A}`, -300],
      [`credit:${B}`, -500],
    ]);
    const spend = (...amounts: readonly [string, number][]) =>
      overspends(
        amounts.map(([id, amount]) => ({ account: `credit:${id}` as const, amount })),
        balances,
        joined,
      );
    assert.equal(spend([B, 800]), null);
    assert.deepEqual(spend([B, 801]), { account: `credit:${B}`, taken: 801, left: 800 });
    assert.deepEqual(spend([A, 400], [B, 401]), { account: `credit:${B}`, taken: 801, left: 800 });
    assert.equal(spend([A, 400], [B, 400]), null);
  });
});

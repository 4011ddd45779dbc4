import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Row } from '../books/tables';
import { chainFault, EMPTY_CHAIN, headAfter, withoutPrivate } from '../daybook/chain';
import { readEntry } from '../daybook/read-entry';
import { arbitraryDaybook, DeviceWriter } from '../testing/arbitrary-daybook';
import { customerDraft, customerId, idOf } from '../testing/made-up-business';
import { booksOf } from '../testing/books-of';
import { erasedBy, forgetting, personIn } from './erased';
import { customerFile } from './export-customer';
import { findCustomers } from './find-customers';
import { eraseCustomer, noteConsent, setCustomer, type SetCustomer } from './set-customer';

const now = Date.UTC(2026, 10, 22, 9);
const who = {
  name: 'Wren Alder',
  email: 'wren@green.example',
  phone: '01632 960 123',
  company: 'Sluice Allotments',
  address: '',
  taxNumber: '',
  note: '',
};

describe('setting a customer up', () => {
  let ids = 0;
  const set = (more: Partial<SetCustomer>) =>
    setCustomer({
      newId: () => idOf(30, (ids += 1)),
      newSalt: () => 'sixteen-letters-',
      id: null,
      who,
      discount: '',
      terms: '',
      creditLimit: 0,
      isActive: true,
      consent: null,
      customers: [],
      ...more,
    });
  const erased = { id: idOf(31, 1), isErased: true } as Row<'customers'>;
  const rules: readonly (readonly [string, Partial<SetCustomer>, string | null])[] = [
    ['with all there is to know', { discount: '10 %', terms: '14' }, null],
    ['with a name alone', { who: { ...who, email: '', phone: '', company: '' } }, null],
    ['without a name', { who: { ...who, name: '  ' } }, 'customer/no-name'],
    ['with half an e-mail', { who: { ...who, email: 'wren@' } }, 'customer/email-wrong'],
    ['with a discount in words', { discount: 'ten' }, 'customer/discount-wrong'],
    ['with a discount of more than all', { discount: '101' }, 'customer/discount-wrong'],
    ['with terms of half a day', { terms: '0.5' }, 'customer/terms-wrong'],
    [
      'with an address too long',
      { who: { ...who, address: 'x'.repeat(301) } },
      'customer/too-long',
    ],
    ['who has been erased', { id: idOf(31, 1), customers: [erased] }, 'customer/erased'],
  ];
  for (const [rule, more, code] of rules) {
    it(`${rule}: ${code ?? 'yes'}`, () => {
      const outcome = set(more);
      assert.equal(outcome.ok ? null : outcome.refusal.code, code);
    });
  }

  it('keeps what is personal apart from what was agreed', () => {
    const outcome = set({ discount: '10', consent: 'written' });
    assert.ok(outcome.ok);
    const [first, second] = outcome.drafts;
    assert.equal(JSON.stringify(first!.body).includes('Wren'), false);
    assert.equal(first!.private?.data['name'], 'Wren Alder');
    assert.deepEqual(second!.body, { customer: outcome.id, isGiven: true, way: 'written' });
  });
});

describe('erasing a customer', () => {
  const writer = new DeviceWriter(1);
  const { newId } = writer;
  const entries = writer.append(
    [
      customerDraft(1, 'Wren', newId),
      customerDraft(2, 'Alder', newId),
      ...noteConsent(newId, customerId(1), true, 'spoken').drafts,
      ...eraseCustomer(newId, [customerId(1)]).drafts,
      customerDraft(1, 'Wren', newId),
    ],
    now,
  );
  const erased = new Set(erasedBy(entries));
  const left = entries.map((entry) => forgetting(entry, erased));

  it('drops what is personal of that one, before and after, and the chain still holds', () => {
    assert.deepEqual([...erased], [customerId(1)]);
    assert.deepEqual(left.map(personIn), [null, customerId(2), null, null, null]);
    let head = EMPTY_CHAIN;
    for (const entry of left) {
      assert.equal(chainFault(entry, head), null);
      head = headAfter(entry);
    }
    assert.ok(!JSON.stringify(left).includes('Wren'));
  });

  it('cannot be undone by whatever arrives later, and keeps that they agreed', () => {
    for (const books of [booksOf(entries), booksOf(left)]) {
      const [one, two] = books.rows('customers');
      assert.deepEqual([one!.name, one!.email, one!.isErased], ['', '', true]);
      assert.equal(two!.name, 'Alder');
      assert.equal(books.rows('consents').length, 1);
    }
  });

  it('gives the same books whether or not the entries still had it, for any daybook', () => {
    fc.assert(
      fc.property(arbitraryDaybook, (any) => {
        const gone = new Set(erasedBy(any));
        const bare = any.map((entry) => forgetting(entry, gone));
        assert.deepEqual(booksOf(bare).toJSON(), booksOf(any).toJSON());
        for (const { isErased, name } of booksOf(any).rows('customers'))
          assert.ok(!isErased || name === '');
      }),
    );
  });

  it('an entry whose private part is gone is still read', () => {
    const read = readEntry(withoutPrivate(entries[0]!));
    assert.ok(read.ok);
  });
  it('an entry whose private part is not what it should be is kept, and says where', () => {
    const entry = { ...entries[0]!, private: { salt: 'sixteen-letters-', data: { name: '' } } };
    const read = readEntry(entry);
    assert.ok(!read.ok && read.fault.code === 'body/wrong');
    assert.match(read.fault.where, /^private\./);
  });
});

describe('finding and handing over', () => {
  const row = (n: number, name: string, more: Partial<Row<'customers'>> = {}) =>
    ({
      id: customerId(n),
      isActive: true,
      isErased: false,
      cardLast4: '',
      ...who,
      ...more,
      name,
    }) as Row<'customers'>;
  const all = [
    row(1, 'Moss Wren', { company: '', phone: '' }),
    row(2, 'Wren Alder'),
    row(3, 'Alder', { company: 'Sluice', phone: '' }),
    row(4, 'Wren Gone', { isActive: false }),
    row(5, '', { isErased: true }),
  ];
  for (const [typed, names] of [
    ['wren', ['Wren Alder', 'Alder', 'Moss Wren']],
    ['sluice ald', ['Alder', 'Wren Alder']],
    ['960123', ['Wren Alder']],
    ['zebra', []],
  ] as const) {
    it(`“${typed}” finds ${names.join(', ') || 'nobody'}`, () =>
      assert.deepEqual(
        findCustomers(typed, all).map(({ name }) => name),
        names,
      ));
  }

  it('a file of all that is kept of one, oldest first, without the till’s own marks', () => {
    const sale = (n: number, at: string) => ({
      ...{ id: idOf(9, n), number: `D1-${String(n)}`, at, total: 450 },
    });
    const file = customerFile({
      isWhole: false,
      rows: [all[1]!],
      consents: [],
      sales: [sale(2, '2026-11-22T10:00:00.000Z'), sale(1, '2026-11-21T10:00:00.000Z')],
      payers: [{ id: idOf(8, 9), name: '', strokes: [[1, 2, 30, 40]] }],
      moves: [
        {
          ...{ id: 'b', account: `credit:${all[1]!.id}`, at: '2026-11-22T10:00:00.000Z' },
          ...{ kind: 'return.made', amount: -450, sale: '', number: '', pays: null, invoice: '' },
        },
        {
          ...{ id: 'a', account: `customer:${all[1]!.id}`, at: '2026-11-21T10:00:00.000Z' },
          ...{ kind: 'payment.taken', amount: 1950, sale: 's', number: 'D1-1', pays: null },
          invoice: '',
        },
      ],
      orders: [
        {
          ...{ number: 'K1-1', at: '2026-11-22T10:00:00.000Z', sort: 'kept', note: 'blue door' },
          lines: [{ total: 450 }, { total: 50 }],
        } as unknown as Row<'orders'>,
      ],
      invoices: [
        {
          ...{ id: 'i', sort: 'invoice', issued: '2026-11-22', due: '2026-12-06', total: 450 },
          ...{ at: '2026-11-22T10:00:00.000Z', paid: 0, note: '', buyer: null },
        } as Row<'invoices'>,
      ],
      numbers: new Map([['i', 'R2026-0001']]),
      charges: [
        {
          ...{ at: '2026-11-22T10:00:00.000Z', unit: 'month', every: 1, from: '2026-11-30' },
          ...{ lines: [], until: null, isActive: true, consent: 'written', note: 'thank you' },
        } as unknown as Row<'charges'>,
      ],
    });
    assert.equal(file.isWhole, false);
    assert.deepEqual(
      file.charges.map(({ note, consent }) => [note, consent]),
      [['thank you', 'written']],
    );
    assert.deepEqual(
      file.invoices.map(({ number, total }) => [number, total]),
      [['R2026-0001', 450]],
    );
    assert.deepEqual(
      file.orders.map(({ number, total, note }) => [number, total, note]),
      [['K1-1', 500, 'blue door']],
    );
    assert.deepEqual(
      file.account.map(({ on, number, amount }) => [on, number, amount]),
      [
        ['owed', 'D1-1', 1950],
        ['credit', '', -450],
      ],
    );
    assert.deepEqual(file.payments, [{ id: idOf(8, 9), name: '', signature: 'M1 2L30 40' }]);
    assert.equal(file.card, null);
    assert.doesNotMatch(JSON.stringify(file), /Stamp|Token/);
    assert.deepEqual(
      file.sales.map(({ number }) => number),
      ['D1-1', 'D1-2'],
    );
    assert.equal(file.customer['email'], 'wren@green.example');
    assert.ok(!('whoStamp' in file.customer));
  });
});

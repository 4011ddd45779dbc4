import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import type { Row } from '../books/tables';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { customerDraft, idOf } from '../testing/made-up-business';
import { CUSTOMER_COLUMNS, customerLines, readCustomers } from './customers-table';
import type { CsvLine, Planned } from './goods-table';
import { customersFromVcards, vcardsOf } from './vcard';

let ids = 0;
const newId = (): string => idOf(77, (ids += 1));

/** As the books have them, with what these would do done. */
function books(...planned: readonly Planned[]): Books {
  const writer = new DeviceWriter(1);
  const found = new Books();
  const drafts = [
    ...[customerDraft(1, 'Wren', newId), customerDraft(2, 'Moss', newId)],
    ...planned.flatMap((each) => each.drafts),
  ];
  for (const entry of writer.append(drafts, Date.UTC(2026, 10, 22, 9))) {
    const read = readEntry(entry);
    assert.ok(read.ok, JSON.stringify(read));
    found.apply(changesOf(read.entry));
  }
  return found;
}
const WREN = books().rows('customers')[0]!;
const read = (lines: readonly CsvLine[], customers = books().rows('customers')) =>
  readCustomers({
    newId,
    newSalt: () => 'sixteen-letters-',
    lines,
    customers,
    currency: 'GBP',
    locale: 'en-GB',
  });
const says = (planned: readonly Planned[]): string[] =>
  planned.map(({ line, verdict, why }) => `${String(line)} ${verdict} ${why}`.trim());
const one = (planned: Planned): Row<'customers'> =>
  books(planned)
    .rows('customers')
    .find(({ name }) => name === planned.name)!;

describe('customers as a table', () => {
  it('has the code of a card once, in the file and among those who are there', () => {
    const code = (name: string, card: string): CsvLine => ({ name, card });
    assert.deepEqual(says(read([code('Ash', 'M-1'), code('Fern', 'm-1')])), [
      '2 new',
      '3 wrong card: line 2 has the same; a card is one customer’s',
    ]);
    const there = [{ ...WREN, code: 'M-7' }];
    assert.deepEqual(says(read([code('Ash', 'm-7')], there)), [
      '2 wrong card: m-7 is the card of Wren already',
    ]);
    assert.equal(customerLines(there, 'GBP')[0]?.card, 'M-7');
  });

  it('goes out and comes in the same', () => {
    const { rows } = { rows: books().rows('customers') };
    const lines = customerLines(rows, 'GBP');
    assert.deepEqual(Object.keys(lines[0]!), [...CUSTOMER_COLUMNS]);
    assert.deepEqual(says(read(lines)), ['2 same', '3 same']);
    assert.deepEqual(customerLines([{ ...WREN, isErased: true }], 'GBP'), []);
    // What would be worked out as a formula is text.
    const [formula] = customerLines([{ ...WREN, note: '=1+1', creditLimit: null }], 'GBP');
    assert.equal(formula?.note, "'=1+1");
    assert.equal(formula.credit_limit, 'any');
    const row: Row<'customers'> = { ...WREN, note: '=1+1', creditLimit: null };
    assert.deepEqual(says(read([formula], [row])), ['2 same']);
  });

  it('finds whom it knows by id, mail, telephone or name, and leaves what it has no column for', () => {
    for (const line of [
      { id: WREN.id, name: 'Wren', company: 'Green Ltd' },
      { name: 'Wren', email: 'WREN@green.example', company: 'Green Ltd' },
      { name: 'Wren', phone: '+44 1632 960 123', company: 'Green Ltd' },
      { name: 'Wren', company: 'Green Ltd' },
    ]) {
      const [made] = read([line], [WREN]);
      assert.equal(made?.verdict, 'changed', JSON.stringify(line));
      const row = one(made);
      assert.deepEqual([row.id, row.company, row.address], [WREN.id, 'Green Ltd', WREN.address]);
    }
    // Two have the same telephone.
    assert.match(says(read([{ name: 'X', phone: '01632 960123' }]))[0]!, /several customers/);
  });

  it('notes new ones down with what was agreed', () => {
    const [made] = read([
      { name: 'Alder', discount: '7.5', terms: '14', credit_limit: '250', active: 'yes' },
    ]);
    assert.equal(made?.verdict, 'new');
    const { discount, terms, creditLimit, isActive } = one(made);
    assert.deepEqual([discount, terms, creditLimit, isActive], ['7.5', 14, 25_000, true]);
  });

  it('says what is wrong, and of which column', () => {
    assert.deepEqual(
      says(
        read([
          { name: '' },
          { name: 'A', email: 'no' },
          { name: 'B', discount: 'much' },
          { name: 'C', terms: '400' },
          { name: 'D', credit_limit: 'lots' },
          { name: 'E', active: 'maybe' },
          { id: idOf(9, 9), name: 'F' },
          { name: 'G', company: 'x'.repeat(90) },
          { name: 'H', email: 'h@green.example' },
          { name: 'I', email: 'h@green.example' },
        ]),
      ),
      [
        '2 wrong name: nothing stands there',
        '3 wrong email: “no” is no mail address',
        '4 wrong discount: “much” is no percentage; write 10 or 7.5',
        '5 wrong terms: “400” is no number of days up to 365',
        '6 wrong credit_limit: “lots” is no amount; write 50.00, or any',
        '7 wrong active: “maybe” is neither yes nor no',
        `8 wrong id: nobody here has ${idOf(9, 9)}; leave it empty for somebody new`,
        '9 wrong company: that is longer than there is room for',
        '10 new',
        '11 wrong line 10 is of the same customer: have them on one',
      ],
    );
    const [erased] = read([{ id: WREN.id, name: 'Wren' }], [{ ...WREN, isErased: true }]);
    assert.equal(erased?.why, 'id: they were forgotten, and stay so');
  });
});

describe('customers as vCards', () => {
  it('go out and come in the same, whatever they are called', () => {
    const text = fc.string({ unit: 'grapheme', maxLength: 40 }).map((each) => each.trim());
    fc.assert(
      fc.property(
        text,
        text,
        fc.stringMatching(/^[\w ,;:\\'"-]{0,40}$/),
        (name, company, address) => {
          fc.pre(name !== '' && !/[\r\n\0]/.test(name + company));
          const card = {
            ...WREN,
            name,
            company,
            address: address.trim(),
            note: 'by\nthe gate; left',
          };
          const found = customersFromVcards(vcardsOf([card, WREN]));
          assert.ok(typeof found !== 'string');
          assert.equal(found.length, 2);
          const { email, phone, note } = card;
          // A backslash in an address comes back as a stroke.
          const at = address.trim().replaceAll('\\', '/');
          assert.deepEqual(found[0], { name, company, email, phone, address: at, note });
          assert.deepEqual(says(read(found.slice(1), [WREN])), ['2 same']);
        },
      ),
    );
  });

  it('of older versions are read as well', () => {
    const found = customersFromVcards(
      [
        ...['BEGIN:VCARD', 'VERSION:3.0', 'N:Birk;Hazel;;;', 'ORG:Birk & Daughters;Shop'],
        ...['TEL;TYPE=WORK,VOICE:+44 1632 960147', 'EMAIL;TYPE=INTERNET:hazel@birk.example'],
        ...['ADR;TYPE=WORK:;;9 Sluice Lane;Tarnbrook;;TB1 2CD;UK', 'END:VCARD', ''],
      ].join('\n'),
    );
    assert.deepEqual(found, [
      {
        ...{ name: 'Hazel Birk', company: 'Birk & Daughters', email: 'hazel@birk.example' },
        ...{ phone: '+44 1632 960147', address: '9 Sluice Lane, Tarnbrook, TB1 2CD, UK' },
      },
    ]);
  });

  it('that are none are said to be so', () => {
    assert.equal(customersFromVcards(' '), 'There is nothing in this file.');
    const fault = customersFromVcards('name,email\nx,y');
    assert.match(typeof fault === 'string' ? fault : '', /^Card 1 is no vCard/);
  });
});

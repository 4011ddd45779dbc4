import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Row } from '../books/tables';
import { openItems, statementOf, type HeldMove } from '../held/statement';
import { journalOf } from '../journal';
import { amountOf } from '../journal/posting';
import { chargeEnds } from '../loose-end/charge-ends';
import { CASH_WAY } from '../payment/ways';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { booksOf, knownEntries } from '../testing/books-of';
import { INVOICING } from '../testing/invoice-drafts';
import { customerDraft, customerId, START, tax } from '../testing/made-up-business';
import { draft } from '../daybook/kinds';
import { makeCharge, type DueCharge } from './due-charge';
import {
  chargeAgain,
  daysToCome,
  daysToMake,
  haltCharge,
  priceOf,
  setCharge,
  typedCharge,
  type SetCharge,
  type TypedCharge,
} from './set-charge';

const TODAY = '2026-11-29';
const CARD = { scheme: 'Visa', last4: '4242', expiry: '2029-04' };
const KEYED = { ...CASH_WAY, id: customerId(77), setStamp: 'x', method: 'keyed' as const };

const TYPED: TypedCharge = {
  customer: customerId(1),
  lines: [{ name: 'A box every month', quantity: '2', price: '12.50', taxes: [tax.id] }],
  ...{ unit: 'month', every: '1', from: '2026-11-30', until: '' },
  ...{ country: 'gb', way: '', consent: '', isMailed: false, note: ' Thank you ', reference: '' },
};

const writer = new DeviceWriter(1);
const command = (typed: Partial<TypedCharge> = {}, more: Partial<SetCharge> = {}): SetCharge => ({
  ...{ newId: writer.newId, newSalt: () => 'sixteen-characters', typed: { ...TYPED, ...typed } },
  ...{ isHeaded: true, today: TODAY, currency: 'GBP', card: CARD, ways: [KEYED] },
  customer: { isErased: false, email: 'wren@green.example' },
  ...more,
});

const codeOf = (typed: Partial<TypedCharge>, more: Partial<SetCharge> = {}): string => {
  const made = setCharge(command(typed, more));
  return made.ok ? 'ok' : made.refusal.code;
};

/** Its row, as it is set up and then changed. */
function rowOf(typed: Partial<TypedCharge> = {}, more: Partial<SetCharge> = {}): Row<'charges'> {
  const made = setCharge(command(typed, more));
  assert.ok(made.ok, JSON.stringify(made));
  const [row] = booksOf(new DeviceWriter(1).append(made.drafts, START)).rows('charges');
  return row!;
}

describe('setting up a standing charge', () => {
  it('keeps what is typed, the personal apart, and stands in its form again as it was', () => {
    const row = rowOf({ until: '2027-11-30', way: KEYED.id, consent: 'written', isMailed: true });
    assert.equal(row.note, 'Thank you');
    assert.deepEqual(
      [row.country, row.notBefore, row.isActive, priceOf(row)],
      ['GB', '2026-11-30', true, 2500],
    );
    assert.deepEqual(typedCharge(row, 'GBP'), {
      ...TYPED,
      ...{ country: 'GB', until: '2027-11-30', way: KEYED.id, consent: 'written' },
      ...{ isMailed: true, note: 'Thank you' },
    });
  });

  it('says what is wrong, and where', () => {
    const cases: readonly (readonly [string, Partial<TypedCharge>, Partial<SetCharge>?])[] = [
      ['charge/not-headed', {}, { isHeaded: false }],
      ['charge/no-customer', {}, { customer: undefined }],
      ['charge/no-customer', {}, { customer: { isErased: true, email: '' } }],
      ['charge/nothing', { lines: [] }],
      ['charge/nothing', { lines: [{ ...TYPED.lines[0]!, price: '0' }] }],
      ['invoice/line-no-name', { lines: [{ ...TYPED.lines[0]!, name: ' ' }] }],
      ['invoice/line-quantity', { lines: [{ ...TYPED.lines[0]!, quantity: '-1' }] }],
      ['invoice/line-amount', { lines: [{ ...TYPED.lines[0]!, price: 'x' }] }],
      ['charge/every-wrong', { every: '0' }],
      ['charge/every-wrong', { every: '1.5' }],
      ['charge/day-wrong', { from: '2026-11-31' }],
      ['charge/day-wrong', { until: '2027-02-29' }],
      ['charge/past', { from: '2026-11-28' }],
      ['charge/until-before', { until: '2026-11-29' }],
      ['charge/country-wrong', { country: 'ZZ' }],
      ['charge/no-way', { way: CASH_WAY.id, consent: 'spoken' }],
      ['charge/no-card', { way: KEYED.id, consent: 'spoken' }, { card: null }],
      [
        'charge/expired',
        { way: KEYED.id, consent: 'spoken' },
        { card: { ...CARD, expiry: '2026-10' } },
      ],
      ['charge/no-consent', { way: KEYED.id }],
      ['charge/no-mail', { isMailed: true }, { customer: { isErased: false, email: '' } }],
    ];
    for (const [code, typed, more] of cases) assert.equal(codeOf(typed, more), code);
    assert.equal(codeOf({ from: TODAY }), 'ok');
  });

  it('changes one that began long ago without a new beginning, and does not give it to somebody else', () => {
    const row = { ...rowOf({ from: '2026-11-30' }), from: '2026-01-31', notBefore: '2026-01-31' };
    const dearer = { ...typedCharge(row, 'GBP'), customer: customerId(2) };
    const made = setCharge(command(dearer, { known: row }));
    assert.ok(made.ok);
    const body = made.drafts[0]!.body;
    assert.deepEqual(
      [body['id'], body['from'], body['notBefore'], body['customer']],
      [row.id, '2026-01-31', '2026-01-31', customerId(1)],
    );
    assert.notEqual(made.drafts[0]!.id, row.id);
    assert.equal(codeOf({ ...dearer, every: '2' }, { known: row }), 'charge/past');
    assert.equal(codeOf({ ...dearer, until: '2026-11-28' }, { known: row }), 'charge/until-before');
  });
});

describe('the days of a standing charge', () => {
  const row = (more: Partial<Row<'charges'>>): Row<'charges'> => ({ ...rowOf(), ...more });

  it('are those that were not made yet, up to today', () => {
    const monthly = row({ from: '2026-08-31', notBefore: '2026-08-31' });
    assert.deepEqual(daysToMake(monthly, TODAY), ['2026-08-31', '2026-09-30', '2026-10-31']);
    assert.deepEqual(daysToMake({ ...monthly, upTo: '2026-09-30' }, TODAY), ['2026-10-31']);
    assert.deepEqual(daysToCome({ ...monthly, upTo: '2026-10-31' }, 2), [
      ...['2026-11-30', '2026-12-31'],
    ]);
  });

  it('are none while it is halted, and not those in between when it goes on, on the days that it had', () => {
    const monthly = row({ from: '2026-07-31', notBefore: '2026-07-31', upTo: '2026-08-31' });
    const apply = (draftOf: ReturnType<typeof haltCharge>): Row<'charges'> => {
      const [next] = booksOf(new DeviceWriter(1).append([draftOf], START)).rows('charges');
      return { ...next!, upTo: monthly.upTo };
    };
    const said = { newId: writer.newId, newSalt: () => 'sixteen-characters', today: TODAY };
    const halted = apply(haltCharge({ ...said, known: monthly }, false));
    assert.deepEqual([daysToMake(halted, TODAY), daysToCome(halted, 1)], [[], []]);
    assert.equal(halted.note, 'Thank you');
    const on = apply(haltCharge({ ...said, known: halted }, true));
    assert.deepEqual(daysToMake(on, TODAY), []);
    assert.deepEqual(daysToCome(on, 2), ['2026-11-30', '2026-12-31']);
  });
});

const CUSTOMER = booksOf(
  new DeviceWriter(1).append([customerDraft(1, 'Wren', writer.newId)], START),
).rows('customers')[0]!;

const due = (charge: Row<'charges'>, day: string, more: Partial<DueCharge> = {}): DueCharge => ({
  ...{ charge, day, customer: CUSTOMER, invoicing: INVOICING, today: TODAY },
  ...{ currency: 'GBP', pricesIncludeTax: true, taxRounding: 'sale', taxes: [tax] },
  ids: {
    ...{ invoice: writer.newId(), numbered: writer.newId(), asked: writer.newId() },
  },
  newSalt: () => 'sixteen-characters',
  ...more,
});

describe('what is made of a standing charge', () => {
  it('is an invoice with the taxes of now, to whom the customer is now, due by what was agreed', () => {
    const charge = rowOf({ isMailed: true, reference: 'PO 7' });
    const made = makeCharge(due(charge, '2026-11-30', { customer: { ...CUSTOMER, terms: 7 } }));
    assert.ok(made.ok);
    const [entry] = knownEntries(new DeviceWriter(1).append([made.invoice], START));
    assert.ok(entry?.kind === 'invoice.made');
    const { body, private: apart } = entry;
    assert.deepEqual(body.of, { is: 'charge', charge: charge.id, day: '2026-11-30' });
    assert.deepEqual([body.total, body.taxes[0]?.amount, body.due], [2500, 417, '2026-12-06']);
    assert.deepEqual(
      [apart?.data.buyer.name, apart?.data.buyer.reference, apart?.data.note],
      ['Wren', 'PO 7', 'Thank you'],
    );
    assert.equal(amountOf(journalOf(entry).postings), 0);
    assert.deepEqual(made.letter?.private?.data, { to: 'wren@green.example' });
  });

  it('has no letter for who has no address, and no tax that was put away', () => {
    const charge = rowOf({ isMailed: true });
    const made = makeCharge(
      due(charge, '2026-11-30', { customer: { ...CUSTOMER, email: '' }, taxes: [] }),
    );
    assert.ok(made.ok);
    assert.equal(made.letter, null);
    assert.deepEqual([made.invoice.body['taxes'], made.invoice.body['total']], [[], 2500]);
  });

  it('says how far the charge is, and is paid by its card, that invoice first', () => {
    const device = new DeviceWriter(1);
    const charge = setCharge(command({ way: KEYED.id, consent: 'spoken' }));
    assert.ok(charge.ok);
    const before = booksOf(device.append(charge.drafts, START));
    const [row] = before.rows('charges');
    const [first, second] = ['2026-11-30', '2026-12-31'].map((day) => makeCharge(due(row!, day)));
    assert.ok(first?.ok === true && second?.ok === true);
    const invoice = second.invoice.id;
    const paid = draft('charge.paid', writer.newId(), null, {
      ...{ invoice, charge: charge.id, customer: customerId(1), payment: writer.newId() },
      ...{
        way: KEYED.id,
        amount: 2500,
        scheme: 'Visa',
        last4: '4242',
        approval: 'A1',
        acquirer: 'q',
      },
    });
    const entries = device.append([first.invoice, second.invoice, paid], START + 1);
    const books = booksOf([...entries]);
    assert.equal(books.row('charges', charge.id)?.upTo, '2026-12-31');
    assert.equal(books.row('heldSums', `customer:${customerId(1)}`)?.amount, 2500);
    const moves = books
      .rows('heldMoves')
      .map(({ id, account, at, kind, amount, doc, pays }): HeldMove => ({
        ...{ id, account, at, kind, amount, pays },
        ...{ sale: '', invoice: doc, number: '' },
      }));
    const dayOf = (at: string): string => at.slice(0, 10);
    const open = openItems(moves, 2500, 0, TODAY, dayOf);
    assert.deepEqual(
      open.map((item) => item.invoice),
      [first.invoice.id],
    );
    assert.equal(statementOf(moves, 2500, '', '', dayOf).closing, 2500);
    const card = books.row('cardPayments', paid.body['payment'] as string);
    assert.deepEqual([card?.state, card?.event, card?.amount], ['captured', null, 2500]);
  });
});

describe('a card that did not pay a standing charge', () => {
  const failed = (invoice: number, at: number) =>
    draft('charge.failed', writer.newId(), null, {
      ...{ invoice: customerId(invoice), charge: customerId(9), customer: customerId(1) },
      ...{ payment: writer.newId(), way: KEYED.id, amount: 2500 },
      ...{ why: 'declined', says: `try ${String(at)}`, last4: '4242' },
    });
  const left = new Map([
    [customerId(1), 2500],
    [customerId(2), 0],
  ]);

  it('is a loose end until it is paid, tried again, or somebody says what came of it', () => {
    const device = new DeviceWriter(1);
    const entries = [...device.append([failed(1, 1), failed(2, 1)], START)];
    const first = booksOf(entries).rows('chargeCards');
    const ends = chargeEnds(first, left, []);
    assert.deepEqual(
      ends.map(({ failed: of }) => of.invoice),
      [customerId(1)],
    );
    assert.deepEqual(chargeEnds(first, left, [{ looseEnd: ends[0]!.looseEnd }]), []);
    // A device whose clock is behind has it tried again.
    entries.push(...device.append([chargeAgain(writer.newId, ends[0]!.failed)], START - 9_000_000));
    assert.deepEqual(chargeEnds(booksOf(entries).rows('chargeCards'), left, []), []);
    entries.push(...device.append([failed(1, 2)], START + 60_000));
    const [again] = chargeEnds(booksOf(entries).rows('chargeCards'), left, []);
    assert.equal(again?.failed.says, 'try 2');
  });
});

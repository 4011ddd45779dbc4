import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Row } from '../books/tables';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { idOf } from '../testing/made-up-business';
import { taxesInForce } from '../slip/price-slip';
import {
  setBusiness,
  setMaker,
  setTax,
  type BusinessOutcome,
  type TypedBusiness,
  type TypedMaker,
  type TypedTax,
} from './set-business';

const writer = new DeviceWriter(1);
/** The body that is written, or the code of the refusal with its field. */
function said(outcome: BusinessOutcome): Record<string, unknown> | string {
  if (!outcome.ok) return `${outcome.refusal.field}: ${outcome.refusal.code}`;
  for (const entry of writer.append(outcome.drafts, 0)) assert.ok(readEntry(entry).ok);
  return outcome.drafts[0]!.body;
}
const typed: TypedBusiness = {
  name: 'Fernbank Jams',
  currency: 'GBP',
  locale: 'en-GB',
  timeZone: 'Europe/London',
  pricesIncludeTax: true,
  taxRounding: 'sale',
  cashStep: '1',
  typedSide: 'cash',
  uplift: '',
  groups: [],
  service: '',
  serviceTaxes: [],
  tips: '',
  tipsOf: 'total',
  isTipOnReader: false,
  signAbove: '',
  carryEach: '',
  carryAll: '',
  carryHours: '24',
  receiptHead: '',
  forgetAfter: '',
  receiptFoot: '',
};
const business = (more: Partial<TypedBusiness>) =>
  said(setBusiness(writer.newId, { ...typed, ...more }));
const row = (n: number, name: string, sort: number): Row<'taxes'> => ({
  id: idOf(3, n),
  setStamp: 'x',
  name,
  rate: '5',
  level: 'country',
  on: [],
  sort,
  isActive: true,
});
const taxes = [row(1, 'Federal', 1), row(2, 'Province', 2)];
const tax = (more: Partial<TypedTax>) =>
  said(
    setTax(
      writer.newId,
      { id: null, name: 'Local', rate: '1.75', level: 'local', on: [], isActive: true, ...more },
      taxes,
    ),
  );
const makers = [
  {
    ...{ id: idOf(21, 1), setStamp: 'x', number: 12, name: 'Odile', commission: '30' },
    ...{ email: '', isActive: true },
  },
];
const maker = (more: Partial<TypedMaker>) =>
  said(
    setMaker(
      writer.newId,
      {
        ...{ id: null, number: '14', name: 'Ansel', commission: '20', email: '' },
        ...{ isActive: true, ...more },
      },
      makers,
    ),
  );

describe('setting up the business', () => {
  it('reads rates however they are typed; the lock is set up apart', () => {
    const body = business({
      uplift: '3,5 %',
      service: '10',
      groups: [{ id: idOf(9, 1), name: ' Members ', percent: '10%' }],
    });
    assert.ok(typeof body === 'object');
    assert.deepEqual(
      [body['uplift'], body['service'], body['groups'], body['lockAfter']],
      [
        '3.5',
        { percent: '10', taxes: [] },
        [{ id: idOf(9, 1), name: 'Members', percent: '10' }],
        undefined,
      ],
    );
  });
  const group = { id: idOf(9, 1), name: 'Members', percent: '10' };
  for (const [about, more, refusal] of [
    ['without a name', { name: ' ' }, 'name: business/empty'],
    ['in no currency', { currency: 'QQQ' }, 'currency: business/currency-wrong'],
    ['with half a penny', { cashStep: '0.5' }, 'cashStep: business/step-wrong'],
    ['with an uplift in words', { uplift: 'much' }, 'uplift: business/rate-wrong'],
    ['with a group without name', { groups: [{ ...group, name: '' }] }, 'groups: business/empty'],
    [
      'with a group that gets it all and more',
      { groups: [{ ...group, percent: '101' }] },
      'groups: business/rate-wrong',
    ],
  ] as const)
    it(`is refused ${about}`, () => assert.equal(business(more), refusal));
});

describe('setting up a tax', () => {
  it('a new one stands last and can be charged on the others', () => {
    const body = tax({ on: [idOf(3, 1), idOf(3, 2)] });
    assert.ok(typeof body === 'object');
    assert.deepEqual([body['sort'], body['on']], [3, [idOf(3, 1), idOf(3, 2)]]);
  });
  it('stays while others are charged on it; put away out of touch, those are charged on nothing', () => {
    const onIt = [row(1, 'Federal', 1), { ...row(2, 'Province', 2), on: [idOf(3, 1)] }];
    const away = setTax(
      writer.newId,
      { id: idOf(3, 1), name: 'Federal', rate: '5', level: 'country', on: [], isActive: false },
      onIt,
    );
    assert.ok(!away.ok && away.refusal.code === 'tax/needed');
    assert.deepEqual(away.refusal.by, ['Province']);
    // Two devices, each of which did not know of the other's change.
    const [left] = taxesInForce([{ ...onIt[0]!, isActive: false }, onIt[1]!]);
    assert.deepEqual([left?.name, left?.on], ['Province', []]);
  });
  it('is never charged on one that stands after it', () => {
    const body = tax({ id: idOf(3, 1), name: 'Federal', on: [idOf(3, 2), idOf(3, 1)] });
    assert.ok(typeof body === 'object');
    assert.deepEqual([body['sort'], body['on']], [1, []]);
  });
  it('wants a name of its own and a rate', () => {
    assert.equal(tax({ name: 'federal' }), 'name: tax/taken');
    assert.equal(tax({ rate: 'five' }), 'rate: business/rate-wrong');
    assert.equal(tax({ name: '' }), 'name: business/empty');
  });
});

describe('setting up a maker', () => {
  it('wants a number of their own, since hang tags say nothing else', () => {
    assert.equal(typeof maker({}), 'object');
    assert.equal(maker({ number: '12' }), 'number: maker/number-taken');
    assert.equal(maker({ number: 'A' }), 'number: maker/number-wrong');
    assert.equal(maker({ email: 'odile@' }), 'email: maker/email-wrong');
    assert.equal(maker({ commission: '120' }), 'commission: business/rate-wrong');
  });
});

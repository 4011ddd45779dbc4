import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { readKeyedCard, schemeOf, type KeyedField, type TypedCard } from './keyed-card';

const typed: TypedCard = {
  number: '4111 1111 1111 1111',
  expiry: '04/29',
  code: '123',
  holder: 'Hazel Birk',
  street: '3 Sluice Lane',
  town: 'Tarnbrook',
  postcode: 'LA2 9ZZ',
  country: 'GB',
  reference: 'order 81',
  how: 'now',
  voice: '',
};
const TODAY = '2026-11-25';
const read = (change: Partial<TypedCard> = {}) => readKeyedCard({ ...typed, ...change }, TODAY);

describe('a card that is typed in', () => {
  it('has its scheme from its number, and goes whole into the seal', () => {
    const outcome = read();
    assert.ok(outcome.ok);
    assert.deepEqual([outcome.scheme, outcome.last4], ['Visa', '1111']);
    assert.deepEqual(
      [outcome.card.number, outcome.card.expiry, outcome.card.code],
      ['4111111111111111', '2029-04', '123'],
    );
  });

  it('leaves the security code out where an approval was given by voice', () => {
    const outcome = read({ how: 'voice', voice: 'V12345', code: '123' });
    assert.ok(outcome.ok);
    assert.equal('code' in outcome.card, false);
  });

  it('has a longer security code where the scheme has', () => {
    const amex = { number: '378282246310005', code: '1234' };
    assert.ok(read(amex).ok);
    assert.ok(!read({ ...amex, code: '123' }).ok);
  });

  const wrong: readonly { change: Partial<TypedCard>; field: KeyedField }[] = [
    { change: { number: '' }, field: 'number' },
    { change: { number: '4111 1111 1111 1112' }, field: 'number' },
    { change: { expiry: '10/26' }, field: 'expiry' },
    { change: { expiry: '13/29' }, field: 'expiry' },
    { change: { expiry: 'soon' }, field: 'expiry' },
    { change: { code: '12' }, field: 'code' },
    { change: { holder: ' ' }, field: 'holder' },
    { change: { reference: '' }, field: 'reference' },
    { change: { postcode: '12345' }, field: 'postcode' },
    { change: { country: 'US', postcode: 'LA2 9ZZ' }, field: 'postcode' },
    { change: { how: 'voice', voice: '' }, field: 'voice' },
  ];
  for (const { change, field } of wrong)
    it(`is refused with ${JSON.stringify(change)}`, () => {
      const outcome = read(change);
      assert.equal(outcome.ok ? 'read' : outcome.refusal.field, field);
    });

  it('holds to the end of its month', () => assert.ok(read({ expiry: '11/26' }).ok));
  it('has no postcode checked where nothing is known of them', () =>
    assert.ok(read({ country: 'AD', postcode: '' }).ok));
  it('says the scheme while it is typed', () => {
    assert.equal(schemeOf('5555 55'), 'Mastercard');
    assert.equal(schemeOf(''), '');
  });
});

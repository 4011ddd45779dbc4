import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { denominationText, moneyText, readAmount, typedText } from './amount-text';
import { quantityOf, quantityText, rateOf, thousandths } from './units';

describe('amounts as people type them', () => {
  const understood = [
    ['4.50', 'GBP', 450],
    ['£4,5', 'GBP', 450],
    ['12', 'GBP', 1200],
    ['.50', 'GBP', 50],
    ['1 250', 'JPY', 1250],
    ['1.005', 'KWD', 1005],
  ] as const;
  for (const [typed, currency, is] of understood) {
    it(`reads ${typed} as ${is} ${currency}`, () =>
      assert.deepEqual(readAmount(typed, currency), { ok: true, amount: is }));
  }

  const refused = [
    ['', 'amount/empty'],
    ['-3', 'amount/negative'],
    ['4.505', 'amount/too-many-decimals'],
    ['four', 'amount/not-a-number'],
    ['1.2.3', 'amount/not-a-number'],
    ['99999999999', 'amount/too-large'],
  ] as const;
  for (const [typed, code] of refused) {
    it(`refuses "${typed}": ${code}`, () => {
      const read = readAmount(typed, 'GBP');
      assert.equal(read.ok ? 'understood' : read.refusal.code, code);
    });
  }

  it('reads back what it wrote, in every currency', () => {
    const currencies = fc.constantFrom('GBP', 'JPY', 'KWD');
    fc.assert(
      fc.property(fc.nat({ max: 99_999_999 }), currencies, (amount, currency) => {
        assert.deepEqual(readAmount(typedText(amount, currency), currency), { ok: true, amount });
      }),
    );
  });

  it('writes money in the locale of the business', () => {
    assert.equal(moneyText(-123450, 'GBP', 'en-GB'), '−£1,234.50');
    assert.equal(moneyText(1500, 'JPY', 'en-GB'), '¥1,500');
    assert.equal(denominationText(2000, 'GBP', 'en-GB'), '£20');
    assert.equal(denominationText(50, 'GBP', 'en-GB'), '50p');
  });
});

describe('quantities and rates', () => {
  it('keeps thousandths exactly, there and back', () => {
    fc.assert(
      fc.property(fc.integer({ min: -9_999_999, max: 9_999_999 }), (n) => {
        assert.equal(quantityOf(quantityText(thousandths(n))), n);
      }),
    );
  });
  it('reads four decimals of a percentage', () => assert.equal(rateOf('33.3333'), 333_333));
  for (const wrong of ['-1', '1.00001', 'x', '']) {
    it(`refuses the rate "${wrong}"`, () => assert.throws(() => rateOf(wrong), /percentage/));
  }
});

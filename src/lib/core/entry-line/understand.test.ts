import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Row } from '../books/tables';
import { item } from '../testing/arbitrary-daybook';
import { goodsOf } from './find-items';
import { understand, type Understood } from './understand';

type Item = Row<'items'>;
const make = (n: number, name: string, more: Partial<Item> = {}): Item => ({
  ...item(n, 450),
  name,
  ...more,
});
const goods = goodsOf([
  make(1, 'Lavender', { detail: '10 cm', code: 'LAV10', barcodes: ['5012345678900'] }),
  make(2, 'Rosemary', { detail: '14 cm' }),
  make(3, 'Fern, hart’s tongue', { detail: '2 l pot' }),
  make(4, 'Crocus, loose', { unit: 'kg', decimals: 3, price: 1260 }),
  make(5, 'Ribbon', { code: '45' }),
  make(6, 'Old lavender', { isActive: false }),
  make(7, 'Sea lavender'),
]);
const read = (typed: string): Understood => understand(typed, goods, 'GBP');

function summary(meant: Understood): string {
  switch (meant.means) {
    case 'item':
      return `${String(meant.quantity / 1000)} × ${meant.item.name}`;
    case 'unlisted':
      return `${String(meant.amount)} ${meant.word}`.trim();
    case 'refused':
      return meant.refusal.code;
    case 'nothing':
      return 'nothing';
  }
}

describe('the entry line', () => {
  const cases = [
    ['lav', '1 × Lavender'],
    ['3 lav', '3 × Lavender'],
    ['3 x lav', '3 × Lavender'],
    ['3xlav', '3 × Lavender'],
    ['12 hart', '12 × Fern, hart’s tongue'],
    ['lav10', '1 × Lavender'],
    ['5012345678900', '1 × Lavender'],
    ['2 5012345678900', '2 × Lavender'],
    ['lavender sea', '1 × Sea lavender'],
    ['0.385 crocus', '0.385 × Crocus, loose'],
    ['0,385 crocus', '0.385 × Crocus, loose'],
    ['45', '1 × Ribbon'],
    ['4', '400'],
    ['4.50', '450'],
    ['£4.50', '450'],
    ['4.50 string', '450 string'],
    ['4.50 ribbon', '450 ribbon'],
    ['', 'nothing'],
    ['  ', 'nothing'],
    ['-3 fern', 'entry/negative'],
    ['-4.50', 'entry/negative'],
    ['0 fern', 'slip/quantity-not-positive'],
    ['99999 fern', 'slip/quantity-too-large'],
    ['1.5 fern', 'slip/too-many-decimals'],
    ['0', 'amount/empty'],
    ['4.505 string', 'amount/too-many-decimals'],
    ['9999999999999', 'amount/too-large'],
    ['zebra', 'entry/no-such-thing'],
    ['old lav', 'entry/no-such-thing'],
  ] as const;
  for (const [typed, means] of cases) {
    it(`"${typed}" means ${means}`, () => assert.equal(summary(read(typed)), means));
  }

  it('puts names that begin with what was typed before those that only hold it', () => {
    const meant = read('lav');
    assert.ok(meant.means === 'item');
    assert.deepEqual(
      meant.fitting.map(({ name }) => name),
      ['Lavender', 'Sea lavender'],
    );
  });

  it('answers anything typed without falling over', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 30 }), (typed) => void read(typed)),
    );
  });
});

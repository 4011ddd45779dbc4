import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Row } from '../books/tables';
import { item } from '../testing/made-up-business';
import { checkDigit } from '../goods/gtin';
import { lineAmount } from '../slip/line-amount';
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
  make(8, 'Sharpening', { unit: 'h', decimals: 3, isTimed: true, price: 3000 }),
  make(9, 'Bulbs, loose', { code: '12345', unit: 'kg', decimals: 3, price: 1260 }),
  make(10, 'Cheese plant', { code: '777' }),
]);
const makers = [
  {
    id: 'm',
    setStamp: 'x',
    number: 12,
    name: 'Rill Pottery',
    email: '',
    commission: '30',
    isActive: true,
  },
  {
    id: 'g',
    setStamp: 'x',
    number: 13,
    name: 'Gone',
    email: '',
    commission: '30',
    isActive: false,
  },
];
const read = (typed: string): Understood => understand(typed, goods, 'GBP', makers);
const cards = new Set(['m-117', '40250']);
const scan = (typed: string): string => summary(understand(typed, goods, 'GBP', makers, cards));
const label = (body: string): string => `${body}${String(checkDigit(body))}`;

function summary(meant: Understood): string {
  switch (meant.means) {
    case 'item':
      return `${String(meant.quantity / 1000)} × ${meant.item.name}`;
    case 'unlisted':
      return `${String(meant.amount)} ${meant.word}`.trim();
    case 'customer':
      return `card ${meant.code}`;
    case 'refused':
      return meant.refusal.code;
    case 'tag':
      return `${meant.maker.name}: ${meant.word} ${meant.tag} ${String(meant.amount)}`;
    case 'unknown code':
      return `unknown ${meant.barcode}`;
    case 'receipt':
      return `receipt ${meant.code.number}`;
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
    ['1:20 sharp', '1.333 × Sharpening'],
    ['1h20 sharp', '1.333 × Sharpening'],
    ['45 min sharp', '0.75 × Sharpening'],
    ['2 h sharp', '2 × Sharpening'],
    ['2 sharp', '2 × Sharpening'],
    ['45 min lav', '4500 min lav'],
    ['4006381333931', 'unknown 4006381333931'],
    ['4006381333932', 'entry/check-digit'],
    ['#12 pots 345 18.00', 'Rill Pottery: pots 345 1800'],
    ['#12 salt pig 18', 'Rill Pottery: salt pig  1800'],
    ['#13 pots 345 18.00', 'entry/no-such-maker'],
    ['#12', 'entry/tag-wrong'],
    ['d4-17 0123ABCDEF', 'receipt D4-17'],
    ['', 'nothing'],
    ['  ', 'nothing'],
    ['-3 fern', 'entry/negative'],
    ['-4.50', 'entry/negative'],
    ['0 fern', 'slip/quantity-not-positive'],
    ['99999 fern', 'slip/quantity-too-large'],
    ['1.5 fern', 'slip/too-many-decimals'],
    ['0', 'amount/empty'],
    ['4.505 string', 'amount/too-many-decimals'],
    ['999999999999999', 'amount/too-large'],
    ['zebra', 'entry/no-such-thing'],
    ['old lav', 'entry/no-such-thing'],
  ] as const;
  for (const [typed, means] of cases) {
    it(`"${typed}" means ${means}`, () => assert.equal(summary(read(typed)), means));
  }

  it('knows the code of a customer’s card, where no goods have it', () => {
    assert.equal(scan('M-117'), 'card M-117');
    assert.equal(scan('40250'), 'card 40250');
    assert.equal(scan('M-118'), 'entry/no-such-thing');
    const [code = ''] = goods.byCode.keys();
    const meant = understand(code, goods, 'GBP', makers, new Set([code]));
    assert.equal(meant.means, 'item');
  });

  it('reads a label of the shop: weight, price of a piece, price of a weight', () => {
    const meant = (body: string) => {
      const each = read(label(body));
      assert.ok(each.means === 'item', JSON.stringify(each));
      return [each.item.name, each.quantity, each.price ?? null];
    };
    assert.deepEqual(meant('251234500385'), ['Bulbs, loose', 385, null]);
    assert.deepEqual(meant('200077701499'), ['Cheese plant', 1000, 1499]);
    const [name, quantity, price] = meant('201234500485') as [string, number, number | null];
    assert.equal(name, 'Bulbs, loose');
    assert.equal(lineAmount(price ?? 1260, quantity), 485);
  });
  it('a label’s price is exactly what the line comes to', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99_999 }), (amount) => {
        const meant = read(label(`2012345${String(amount).padStart(5, '0')}`));
        assert.ok(meant.means === 'item');
        assert.equal(lineAmount(meant.price ?? 1260, meant.quantity), amount);
      }),
    );
  });

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

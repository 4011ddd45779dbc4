import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { checkValue, receiptCode } from './receipt';
import { receiptCodeIn, receiptOfSale } from './receipt-code';

const sale = { id: '00000000-0000-7000-8000-000000000009', number: 'D4-17', total: 1350 };
const code = receiptCode({ number: sale.number, check: checkValue('ours', sale) });

describe('the code of a receipt', () => {
  it('is told from what else is typed or scanned, and read whatever the scanner makes of capitals', () => {
    assert.equal(receiptCodeIn(` ${code.toUpperCase()}\n`)?.number, 'D4-17');
    for (const other of ['D4-17', '5099999000011', '3 fern', 'D4-17 0123', 'lavender', ''])
      assert.equal(receiptCodeIn(other), null, other);
  });

  it('is of a sale of this business, and of no other', () => {
    const read = receiptCodeIn(code);
    assert.ok(read !== null);
    assert.equal(receiptOfSale(read, 'ours', sale), 'plain');
    assert.equal(receiptOfSale(read, 'theirs', sale), null);
    assert.equal(receiptOfSale(read, 'ours', { ...sale, total: 1351 }), null);
    assert.equal(receiptOfSale(read, 'ours', { ...sale, number: 'D4-18' }), null);
  });

  it('says whether it is of a receipt without prices', () => {
    const check = checkValue('ours', sale, true);
    const gift = receiptCodeIn(receiptCode({ number: sale.number, check }));
    assert.ok(gift !== null);
    assert.equal(receiptOfSale(gift, 'ours', sale), 'gift');
    assert.equal(receiptOfSale(gift, 'theirs', sale), null);
    assert.equal(receiptOfSale(gift, 'ours', { ...sale, total: 1351 }), null);
  });
});

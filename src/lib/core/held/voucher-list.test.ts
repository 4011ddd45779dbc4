import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { owedOn, voucherList } from './voucher-list';

const sold = (number: string, value: number, until = '', id = number) => ({
  ...{ kept: null, id, number, value, until, at: `2026-11-0${id.at(-1)!}T10:00:00.000Z` },
  ...{ sale: `sale-${id}`, saleNumber: `D1-${id.at(-1)!}` },
});
const stands = (number: string, balance: number) => ({
  account: `voucher:${number}`,
  amount: balance,
});
const blocked = { id: 'V4', isBlocked: true, until: '', reason: 'lost', setStamp: 'x' };

describe('the list of vouchers', () => {
  const rows = voucherList(
    [
      sold('V1', 500),
      sold('V2', 500),
      sold('V3', 500, '2026-11-20'),
      sold('V4', 500),
      sold('V5', 500),
      sold('V6', 500),
      sold('V6', 300, '', 'V7'),
    ],
    [blocked],
    [
      stands('V1', -120),
      stands('V3', -500),
      stands('V4', -500),
      stands('V5', 30),
      stands('V6', -800),
    ],
    '2026-11-28',
  );

  it('says of each what is left and how it stands, the latest first', () => {
    assert.deepEqual(
      rows.map(({ number, left, stands: how }) => [number, left, how]),
      [
        ['V6', 800, 'sold twice'],
        ['V5', -30, 'spent twice'],
        ['V4', 500, 'blocked'],
        ['V3', 500, 'out of date'],
        ['V2', 0, 'used up'],
        ['V1', 120, 'open'],
      ],
    );
    assert.deepEqual([rows[0]!.value, rows[0]!.saleNumber], [800, 'D1-6']);
  });

  it('adds up what is owed on them, without what was spent twice', () => {
    assert.equal(owedOn(rows), 120 + 500 + 500 + 800);
  });

  it('is made of ten thousand as of ten: each is looked up once', () => {
    const many = Array.from({ length: 10_000 }, (_, n) => sold(`X${String(n)}1`, n + 1));
    const sums = many.map(({ number, value }) => stands(number, -value));
    assert.equal(owedOn(voucherList(many, [], sums, '2026-11-28')), 50_005_000);
  });
});

/** What an entry is about is said in words and money, whatever its body is like. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { moneyText } from '../money/amount-text';
import { aboutEntry } from './about-entry';

const about = (body: Record<string, unknown>): string =>
  aboutEntry({ body }, (amount) => moneyText(amount, 'GBP', 'en-GB'));

describe('an entry in a few words', () => {
  it('has sums as people write them, and numbers said to be some', () => {
    assert.equal(about({ number: 7, total: 450, lines: [] }), 'no. 7 · £4.50');
    assert.equal(about({ number: 'B-113', counted: 10_695, reason: '' }), 'B-113 · £106.95');
    assert.equal(about({ name: 'Bryony', stage: 'packed' }), 'Bryony · packed');
    assert.equal(about({ way: 'cash', amount: 320 }), '£3.20');
  });

  it('is said of what is of no shape that is known here, and is never long', () => {
    assert.equal(about({ total: 1.5, name: null, reason: {} }), '1.5');
    assert.equal(about({ total: '450' }), '450');
    assert.equal(about({}), '');
    assert.equal(about({ reason: 'x'.repeat(999) }).length, 200);
  });
});

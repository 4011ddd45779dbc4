import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { idOf, item } from '../testing/made-up-business';
import {
  emptySlip,
  putBackOn,
  sayOfLine,
  sayOfSlip,
  setPrice,
  withoutFavours,
  MOST_LINES,
  putItem,
  putUnlisted,
  quantitiesOn,
  removeLine,
  setQuantity,
  thingsOn,
  type OpenSlip,
  type SlipOutcome,
} from './open-slip';

const empty = emptySlip('slip');
const done = (outcome: SlipOutcome): OpenSlip => {
  assert.ok(outcome.ok, JSON.stringify(outcome));
  return outcome.slip;
};
const refusal = (outcome: SlipOutcome): string => (outcome.ok ? 'done' : outcome.refusal.code);
const bulbs = { ...item(3, 1260), unit: 'kg', decimals: 3 };

describe('the open slip', () => {
  it('puts the same item on the line it already has', () => {
    const slip = done(
      putItem(done(putItem(empty, item(1, 450), 1000, 'a')), item(1, 450), 2000, 'b'),
    );
    assert.deepEqual(
      slip.lines.map(({ key, quantity }) => [key, quantity]),
      [['a', 3000]],
    );
    assert.equal(slip.touched, 'a');
  });

  it('gives a line of its own to the same item at another price', () => {
    const slip = done(
      putItem(done(putItem(empty, item(1, 450), 1000, 'a')), item(1, 475), 1000, 'b'),
    );
    assert.equal(slip.lines.length, 2);
    assert.equal(quantitiesOn(slip).get(item(1, 450).id), 2000);
  });

  it('counts a weighed line as one thing', () => {
    const slip = done(putItem(done(putItem(empty, bulbs, 385, 'a')), item(1, 450), 3000, 'b'));
    assert.equal(thingsOn(slip), 4);
  });

  it('leaves the old slip as it was, so that undo is the old slip', () => {
    const before = done(putItem(empty, item(1, 450), 1000, 'a'));
    const after = done(removeLine(before, 'a'));
    assert.equal(after.lines.length, 0);
    assert.equal(before.lines.length, 1);
  });

  const slip = done(putItem(empty, item(1, 450), 1000, 'a'));
  const refusals = [
    ['a quantity below nothing', setQuantity(slip, 'a', -1000), 'slip/quantity-not-positive'],
    ['a quantity of nothing', setQuantity(slip, 'a', 0), 'slip/quantity-not-positive'],
    ['half a pot', setQuantity(slip, 'a', 500), 'slip/too-many-decimals'],
    ['ten thousand', setQuantity(slip, 'a', 10_000_000), 'slip/quantity-too-large'],
    ['a line that is not there', setQuantity(slip, 'z', 1000), 'slip/no-such-line'],
    ['removing what is not there', removeLine(slip, 'z'), 'slip/no-such-line'],
  ] as const;
  for (const [about, outcome, code] of refusals) {
    it(`refuses ${about}`, () => assert.equal(refusal(outcome), code));
  }

  it('is full at some point, and says so', () => {
    let full = empty;
    for (let n = 0; n < MOST_LINES; n += 1) {
      full = done(putUnlisted(full, { name: 'x', price: 1, taxes: [] }, String(n)));
    }
    assert.equal(
      refusal(putUnlisted(full, { name: 'x', price: 1, taxes: [] }, 'more')),
      'slip/full',
    );
  });
});

describe('an item with a price of its own on the other side', () => {
  const both = { ...item(1, 450), otherPrice: 480 };
  const on = putItem(emptySlip(idOf(9, 1)), both, 1000, 'a');
  assert.ok(on.ok);
  const only = (outcome: SlipOutcome) => {
    assert.ok(outcome.ok, JSON.stringify(outcome));
    return outcome.slip;
  };

  it('has it again when its price is changed and changed back, or the favour is taken back', () => {
    const changed = only(setPrice(on.slip, 'a', 300, 'bruised'));
    assert.equal(changed.lines[0]?.otherPrice, undefined);
    const again = only(setPrice(changed, 'a', 350, 'less bruised'));
    assert.equal(only(setPrice(again, 'a', 450, '')).lines[0]?.otherPrice, 480);
    assert.equal(withoutFavours(again).lines[0]?.otherPrice, 480);
    assert.deepEqual(only(setPrice(again, 'a', 450, '')).lines, on.slip.lines);
  });

  it('joins the line that has the same one, and no other', () => {
    assert.equal(only(putItem(on.slip, both, 1000, 'b')).lines.length, 1);
    assert.equal(only(putItem(on.slip, { ...both, otherPrice: 500 }, 1000, 'b')).lines.length, 2);
    assert.equal(only(putItem(on.slip, { ...both, otherPrice: null }, 1000, 'b')).lines.length, 2);
  });

  it('does not join a line whose taxes were changed', () => {
    const taxed = only(sayOfLine(on.slip, 'a', { taxes: [] }));
    const two = only(putItem(taxed, both, 1000, 'b'));
    assert.deepEqual(
      two.lines.map(({ taxes }) => taxes.length),
      [0, both.taxes.length],
    );
  });
});

describe('what was taken off', () => {
  it('comes back where it was, with what was put on meanwhile', () => {
    const all = [1, 2, 3].reduce(
      (slip, n) => {
        const put = putItem(slip, item(n, 450), 1000, String(n));
        assert.ok(put.ok);
        return put.slip;
      },
      emptySlip(idOf(9, 1)),
    );
    const off = removeLine(all, '2');
    assert.ok(off.ok);
    const more = putItem(off.slip, item(4, 450), 1000, '4');
    assert.ok(more.ok);
    assert.deepEqual(
      putBackOn(more.slip, all).lines.map(({ key }) => key),
      ['1', '2', '3', '4'],
    );
    const said = sayOfSlip(all, { note: 'by the gate' });
    assert.deepEqual(putBackOn(emptySlip(all.id), said), said);
  });
});

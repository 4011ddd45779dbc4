import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { isBorneOut } from './card-claims';

const found = (state: string, amount = 1000) => ({ state, amount });

describe('what a device says of a card', () => {
  const rules: readonly (readonly [string, ReturnType<typeof found> | null, boolean])[] = [
    ['captured', found('captured'), true],
    ['captured', found('captured', 1), false],
    ['captured', found('reversed', 0), true],
    ['captured', found('declined', 0), false],
    ['captured', found('', 0), false],
    ['captured', null, false],
    ['authorised', found('authorised'), true],
    ['authorised', found('authorised', 900), false],
    ['authorised', found('captured', 900), true],
    ['authorised', found('released', 0), true],
    ['authorised', null, false],
    ['declined', found('declined', 0), true],
    ['declined', found('captured'), false],
    ['declined', null, true],
    ['cancelled', found('cancelled', 0), true],
    ['cancelled', found('captured'), false],
    ['reversed', found('reversed', 0), true],
    ['reversed', found('captured'), false],
    ['released', found('released', 0), true],
    ['released', found('captured'), false],
    ['expired', found('authorised'), true],
    ['expired', found('captured'), false],
  ];
  for (const [state, has, is] of rules)
    it(`${state}, where the acquirer has ${has === null ? 'nothing' : `${has.state} ${has.amount}`}: ${is ? 'so' : 'not so'}`, () =>
      assert.equal(isBorneOut({ payment: 'p', state, amount: 1000 }, has), is));
});

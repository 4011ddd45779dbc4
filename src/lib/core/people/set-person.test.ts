import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Row } from '../books/tables';
import { idOf, personBody } from '../testing/made-up-business';
import { inOrder } from './in-order';
import { RIGHTS } from './rights';
import { setPerson, type SetPerson } from './set-person';

const row = (n: number, more: Partial<Row<'staff'>> = {}): Row<'staff'> => ({
  ...personBody(n, []),
  setStamp: 'x',
  pinStamp: 'x',
  pin: null,
  ...more,
});
const owner = row(1, { role: 'owner', name: 'Maren' });
const people = [owner, row(2, { name: 'Ines' }), row(4, { name: 'Gone', isActive: false })];

const set = (more: Partial<SetPerson>) =>
  setPerson({
    newId: () => idOf(9, 1),
    id: null,
    name: 'Oriel',
    role: 'helper',
    isActive: true,
    rights: [],
    discountUpTo: '5',
    pin: null,
    people,
    ...more,
  });

describe('setting a person up', () => {
  const rules: readonly (readonly [string, Partial<SetPerson>, string | null])[] = [
    ['somebody new', {}, null],
    ['without a name', { name: '  ' }, 'person/no-name'],
    ['with the name of somebody who is here', { name: 'INES' }, 'person/name-taken'],
    ['with the name of somebody who has left', { name: 'Gone' }, null],
    ['with a discount that is no percentage', { discountUpTo: 'five' }, 'person/discount-wrong'],
    ['with a discount of more than everything', { discountUpTo: '101' }, 'person/discount-wrong'],
    ['with a percent sign typed', { discountUpTo: ' 7.5 %' }, null],
    ['the only owner as a helper', { id: owner.id, name: 'Maren' }, 'person/last-owner'],
    [
      'the only owner as gone',
      { id: owner.id, role: 'owner', isActive: false },
      'person/last-owner',
    ],
    ['the first person as a helper', { people: [] }, 'person/last-owner'],
    ['the first person as the owner', { people: [], role: 'owner' }, null],
  ];
  for (const [rule, more, is] of rules) {
    it(`${rule}: ${is ?? 'yes'}`, () => {
      const outcome = set(more);
      assert.equal(outcome.ok ? null : outcome.refusal.code, is);
    });
  }
  it('gives an owner every right, whatever was ticked', () => {
    const outcome = set({ role: 'owner' });
    assert.ok(outcome.ok);
    assert.equal((outcome.drafts[0]!.body['rights'] as string[]).length, RIGHTS.length);
  });
  it('lists owners first, then by name', () => {
    const names = inOrder([row(5, { name: 'b' }), row(4, { name: 'A' }), owner]).map((p) => p.name);
    assert.deepEqual(names, ['Maren', 'A', 'b']);
  });
});

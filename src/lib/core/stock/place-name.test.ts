/** What places are called. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { BASE, SUPPLIERS } from '../books/names';
import { placeName } from './place-name';

const names = {
  places: [
    { id: 'van', name: 'Van' },
    { id: BASE, name: '' },
  ],
  events: [{ id: 'moor', short: 'Moor' }],
  suppliers: [{ id: 'fen', name: 'Fen Nursery' }],
};

describe('a place', () => {
  for (const [place, name, supplier] of [
    ['van', 'Van'],
    [BASE, 'Base'],
    ['moor', 'Moor'],
    ['gone:given-away', 'gone: given away'],
    ['way:list', 'on the way'],
    [SUPPLIERS, 'Fen Nursery', 'fen'],
    [SUPPLIERS, 'a supplier'],
    ['elsewhere', 'a place not known here'],
  ] as const)
    it(`is called ${name}`, () => assert.equal(placeName(place, names, supplier ?? null), name));

  it('that was named is called so, the base as well', () => {
    const named = { ...names, places: [{ id: BASE, name: 'Barn' }] };
    assert.equal(placeName(BASE, named), 'Barn');
    assert.equal(placeName(BASE, { ...names, places: [] }), 'Base');
  });
});

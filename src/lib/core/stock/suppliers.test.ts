import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { kinds } from '../daybook/kinds';
import { PLAIN_ITEM } from '../goods/plain-item';
import { idOf, itemId } from '../testing/made-up-business';
import { allPlaces, placeByCode, setPlace, type TypedPlace } from './places';
import {
  setSupplier,
  setSupply,
  type SupplyOutcome,
  type TypedSupplier,
  type TypedSupply,
} from './suppliers';

let ids = 0;
const newId = (): string => idOf(75, (ids += 1));
const fault = (outcome: SupplyOutcome): string =>
  outcome.ok ? 'ok' : `${outcome.refusal.field}: ${outcome.refusal.code}`;

describe('a supplier', () => {
  const typed: TypedSupplier = {
    ...{ name: ' Ferris ', email: 'orders@ferris.example', phone: '01632 960120', days: '5' },
    ...{ note: '', isActive: true },
  };
  const known = { ...typed, name: 'Ferris', days: 5, id: idOf(52, 1), setStamp: 'x' };

  it('is set up, and says which field is wrong', () => {
    const outcome = setSupplier(newId, null, typed, []);
    assert.ok(outcome.ok);
    assert.equal(kinds['supplier.set'].body.parse(outcome.drafts[0]?.body).name, 'Ferris');
    const set = (more: Partial<TypedSupplier>): string =>
      fault(setSupplier(newId, null, { ...typed, ...more }, [known]));
    assert.equal(set({ name: ' ' }), 'name: supplier/no-name');
    assert.equal(set({}), 'name: supplier/name-taken');
    assert.equal(set({ name: 'Holt', email: 'holt' }), 'email: supplier/mail-wrong');
    assert.equal(set({ name: 'Holt', days: '400' }), 'days: supplier/days-wrong');
    assert.equal(set({ name: 'Holt', email: '', days: '' }), 'ok');
    assert.equal(fault(setSupplier(newId, known.id, typed, [known])), 'ok');
  });
});

describe('how an item is bought', () => {
  const item = {
    ...{ ...PLAIN_ITEM, id: itemId(1), setStamp: 'x', name: 'Lavender', price: 450 },
    reorder: [
      { place: 'base', level: 10_000 },
      { place: idOf(53, 9), level: 1000 },
    ],
  };
  const typed: TypedSupply = {
    suppliers: [{ supplier: idOf(52, 1), code: 'F1', pack: '12', price: '1.71' }],
    ...{ pars: { base: '40' }, levels: { base: '10' }, weight: '420', perCrate: '15' },
  };
  const set = (more: Partial<TypedSupply>): string =>
    fault(setSupply(newId, item, { ...typed, ...more }, 'GBP'));

  it('is one entry, and another of the item where a reorder level changes', () => {
    const same = setSupply(newId, item, typed, 'GBP');
    assert.ok(same.ok);
    assert.deepEqual(
      same.drafts.map(({ kind }) => kind),
      ['item.supply'],
    );
    const body = kinds['item.supply'].body.parse(same.drafts[0]?.body);
    assert.deepEqual(
      [body.weight, body.perCrate, body.suppliers[0]?.price],
      [420, 15_000, 171_000],
    );
    const other = setSupply(newId, item, { ...typed, levels: { base: '12' } }, 'GBP');
    assert.ok(other.ok);
    const changed = kinds['item.set'].body.parse(other.drafts[1]?.body);
    // A place that the form does not show keeps its level.
    assert.deepEqual(changed.reorder, [
      { place: 'base', level: 12_000 },
      { place: idOf(53, 9), level: 1000 },
    ]);
  });

  it('says which field is wrong: a pack of none, a level above par, a supplier twice', () => {
    const [first] = typed.suppliers;
    assert.equal(set({ suppliers: [{ ...first!, pack: '0' }] }), 'pack 0: supply/pack-wrong');
    assert.equal(set({ suppliers: [{ ...first!, price: 'x' }] }), 'price 0: supply/price-wrong');
    assert.equal(
      set({ suppliers: [{ ...first!, supplier: '' }] }),
      'supplier 0: supply/no-supplier',
    );
    assert.equal(set({ suppliers: [first!, first!] }), 'supplier 1: supply/supplier-twice');
    assert.equal(set({ levels: { base: '41' } }), 'par base: supply/level-above-par');
    assert.equal(set({ levels: { base: '-1' } }), 'level base: supply/figure-wrong');
    assert.equal(set({ pars: { base: 'x' } }), 'par base: supply/figure-wrong');
    assert.equal(set({ weight: '1.5' }), 'weight: supply/figure-wrong');
    assert.equal(set({ perCrate: '0' }), 'perCrate: supply/figure-wrong');
  });
});

describe('a place', () => {
  const typed: TypedPlace = {
    ...{ name: 'Van', sort: 'van', within: '', code: 'P1', isActive: true },
    ...{ mostWeight: '300', mostCrates: '40' },
  };
  const row = (n: number, more: Partial<TypedPlace> = {}) => {
    const outcome = setPlace({
      ...{ newId, id: idOf(53, n), typed: { ...typed, ...more }, places: [], hasGoods: false },
    });
    assert.ok(outcome.ok, JSON.stringify(outcome));
    return { ...kinds['place.set'].body.parse(outcome.drafts[0]?.body), setStamp: 'x' };
  };
  const places = [
    row(1),
    row(2, { name: 'Shelf', sort: 'area', within: 'base', code: 'P2' }),
    row(3, { name: 'Crate', sort: 'area', within: idOf(53, 2), code: '' }),
  ];
  const set = (id: string | null, more: Partial<TypedPlace>, hasGoods = false): string => {
    const outcome = setPlace({ newId, id, typed: { ...typed, ...more }, places, hasGoods });
    return outcome.ok ? 'ok' : `${outcome.refusal.field}: ${outcome.refusal.code}`;
  };

  it('stands with the areas in it, the base first and always', () => {
    assert.deepEqual(
      allPlaces(places).map(({ id, name }) => name || id),
      ['base', 'Shelf', 'Crate', 'Van'],
    );
    assert.equal(placeByCode(' P2 ', places)?.name, 'Shelf');
    assert.equal(placeByCode('', places), undefined);
    assert.deepEqual([places[0]?.mostWeight, places[0]?.mostCrates], [300_000, 40_000]);
  });

  it('is not inside itself, however deep, nor called or coded as another one', () => {
    const shelf = { sort: 'area', code: 'P2', name: 'Shelf' } as const;
    assert.equal(
      set(idOf(53, 2), { ...shelf, within: idOf(53, 2) }),
      'within: place/within-itself',
    );
    assert.equal(
      set(idOf(53, 2), { ...shelf, within: idOf(53, 3) }),
      'within: place/within-itself',
    );
    assert.equal(set(null, { ...shelf, within: '' }), 'within: place/no-within');
    assert.equal(set(null, {}), 'name: place/name-taken');
    assert.equal(set(null, { name: 'Lorry' }), 'code: place/code-taken');
    assert.equal(set(null, { name: ' ' }), 'name: place/no-name');
    assert.equal(
      set(null, { name: 'Lorry', code: '', mostWeight: 'much' }),
      'mostWeight: place/limit-wrong',
    );
  });

  it('is put away empty', () => {
    assert.equal(set(idOf(53, 1), { isActive: false }), 'ok');
    assert.equal(set(idOf(53, 1), { isActive: false }, true), 'isActive: place/has-goods');
    // An area is in it.
    const shelf = { sort: 'area', within: 'base', code: 'P2', name: 'Shelf' } as const;
    assert.equal(set(idOf(53, 2), { ...shelf, isActive: false }), 'isActive: place/has-goods');
  });
});

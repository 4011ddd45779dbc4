import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { idOf, item } from '../testing/made-up-business';
import {
  categoryName,
  categoryNamed,
  inOrderOfCategory,
  orderCategories,
  setCategory,
  unsetCategories,
  type CategoryOutcome,
  type SetCategory,
} from './categories';

const writer = new DeviceWriter(1);
const herbs = { id: idOf(31, 1), setStamp: 'x', name: 'Herbs', sort: 1, isActive: true };
const pots = { ...herbs, id: idOf(31, 2), name: 'Pots', sort: 0 };
const away = { ...herbs, id: idOf(31, 3), name: 'Bulbs', sort: 2, isActive: false };
const all = [herbs, pots, away];
const set = (change: Partial<SetCategory>): CategoryOutcome =>
  setCategory({
    newId: writer.newId,
    id: null,
    name: 'Seeds',
    isActive: true,
    categories: all,
    items: [],
    ...change,
  });

describe('categories', () => {
  it('stand in their order', () =>
    assert.deepEqual(
      inOrderOfCategory(all).map(({ name }) => name),
      ['Pots', 'Herbs', 'Bulbs'],
    ));
  it('are named by id, and keep their goods under another name', () => {
    assert.equal(categoryNamed(' herbs ', all), herbs.id);
    assert.equal(categoryName(herbs.id, [{ ...herbs, name: 'Kitchen herbs' }]), 'Kitchen herbs');
  });
  it('that are unknown are their own name', () => {
    assert.equal(categoryNamed('Seeds', all), 'Seeds');
    assert.equal(categoryName('Seeds', all), 'Seeds');
    const items = [{ category: 'Seeds' }, { category: herbs.id }, { category: '' }];
    assert.deepEqual(unsetCategories(items, all), ['Seeds']);
  });
  it('take in the goods that carry their name', () => {
    const seed = { ...item(1, 100), category: 'seeds' };
    const outcome = set({ items: [seed, item(2, 100)] });
    assert.ok(outcome.ok);
    assert.deepEqual(
      outcome.drafts.map(({ kind, body }) => [kind, body['category'] ?? body['sort']]),
      [
        ['category.set', 3],
        ['item.set', outcome.id],
      ],
    );
  });
  it('in another order write only what moves', () => {
    const drafts = orderCategories(writer.newId, [pots, away, herbs]);
    assert.deepEqual(
      drafts.map(({ body }) => body['name']),
      ['Bulbs', 'Herbs'],
    );
  });
  const wrong = [
    { is: 'category/no-name', change: { name: ' ' } },
    { is: 'category/taken', change: { name: 'POTS' } },
  ];
  for (const { is, change } of wrong)
    it(`say ${is}`, () => {
      const outcome = set(change);
      assert.equal(outcome.ok ? 'set' : outcome.refusal.code, is);
    });
  it('that are put away leave their name to others', () => assert.ok(set({ name: 'Bulbs' }).ok));
});

import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Row } from '../books/tables';
import { item, TAX } from '../testing/made-up-business';
import { entryDoes, tapDoes } from './does';

const TAXES = [{ id: TAX }, { id: 'other' }];
const pot = item(1, 450);
const of = (change: Partial<Row<'items'>>): Row<'items'> => ({ ...pot, ...change });
const timed = of({ isTimed: true, unit: 'h', decimals: 2 });

describe('a tap on goods', () => {
  it('puts one on the slip', () => {
    assert.deepEqual(tapDoes(pot), { does: 'put', item: pot, quantity: 1000, said: {} });
    assert.equal(tapDoes(of({ unit: 'bunch', decimals: 0 })).does, 'put');
  });

  it('asks first where which one, what with, what price or how long is open', () => {
    for (const open of [
      of({ choices: [{ name: 'Colour', values: ['red'] }] }),
      of({ extras: [{ name: 'Sauce', most: 1, extras: [] }] as never }),
      of({ isOpenPrice: true }),
      timed,
    ])
      assert.deepEqual(tapDoes(open), { does: 'ask', item: open, quantity: 1000 });
  });

  it('waits for the quantity of what is weighed', () => {
    const weighed = of({ unit: 'kg', decimals: 3 });
    assert.deepEqual(tapDoes(weighed), { does: 'await quantity', name: 'T1' });
    assert.deepEqual(tapDoes(of({ unit: 'kg', decimals: 3, code: '' })), {
      does: 'await quantity',
      name: 'Thing 1',
    });
  });
});

describe('an entry that is finished', () => {
  const found = { means: 'item', item: pot, quantity: 2000, fitting: [pot] } as const;

  it('puts what it means on the slip, or what was chosen instead', () => {
    const other = item(2, 300);
    assert.deepEqual(entryDoes(found, null, TAXES), {
      does: 'put',
      item: pot,
      quantity: 2000,
      said: {},
    });
    const done = entryDoes(found, other, TAXES);
    assert.equal(done?.does === 'put' ? done.item : null, other);
  });

  it('asks nothing that it has said: hours, or the price of a label', () => {
    const hours = { ...found, item: timed };
    assert.equal(entryDoes(hours, null, TAXES)?.does, 'put');
    assert.deepEqual(
      entryDoes({ ...found, item: of({ isOpenPrice: true }) }, null, TAXES)?.does,
      'ask',
    );
    const labelled = { ...found, item: of({ isOpenPrice: true }), price: 120 };
    assert.deepEqual(entryDoes(labelled, null, TAXES), {
      does: 'put',
      item: labelled.item,
      quantity: 2000,
      said: { price: 120 },
    });
  });

  it('gives what is not listed the first tax, and a hang tag its maker', () => {
    assert.deepEqual(entryDoes({ means: 'unlisted', amount: 500, word: '' }, null, TAXES), {
      does: 'put unlisted',
      line: { name: 'Unlisted', price: 500, taxes: [TAX] },
    });
    assert.deepEqual(entryDoes({ means: 'unlisted', amount: 500, word: 'pot' }, null, []), {
      does: 'put unlisted',
      line: { name: 'pot', price: 500, taxes: [] },
    });
    const maker = { id: 'm', name: 'Wren' } as Row<'makers'>;
    const tag = { means: 'tag', maker, word: 'bowl', tag: '345', amount: 1800 } as const;
    const line = { name: 'bowl, Wren', price: 1800, taxes: [TAX], maker: 'm' };
    assert.deepEqual(entryDoes(tag, null, TAXES), {
      does: 'put unlisted',
      line: { ...line, tag: '345' },
    });
    assert.deepEqual(entryDoes({ ...tag, tag: '', word: '' }, null, TAXES), {
      does: 'put unlisted',
      line: { ...line, name: 'Wren' },
    });
  });

  it('makes an item of a code that nothing has, and nothing of what it could not understand', () => {
    assert.deepEqual(entryDoes({ means: 'unknown code', barcode: '40' }, null, TAXES), {
      does: 'make',
      barcode: '40',
    });
    assert.equal(entryDoes({ means: 'nothing' }, null, TAXES), null);
    const refusal = { code: 'entry/tag-wrong' } as const;
    assert.equal(entryDoes({ means: 'refused', refusal }, null, TAXES), null);
  });
});

import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Row } from '../books/tables';
import { PLAIN_ITEM } from '../goods/plain-item';
import { BUSINESS, idOf, item } from '../testing/made-up-business';
import { itemLines, readItems, type ItemsContext, type PlannedLine } from './items-table';

const context: ItemsContext = {
  business: BUSINESS,
  currency: 'GBP',
  taxes: [
    { id: idOf(3, 1), name: 'VAT 20 %' },
    { id: idOf(3, 2), name: 'Zero | none' },
  ],
  makers: [{ id: idOf(21, 1), number: 12 }],
  categories: [{ id: idOf(31, 1), setStamp: 'x', name: 'Herbs', sort: 0, isActive: true }],
};
let ids = 0;
const read = (
  lines: readonly Readonly<Record<string, string>>[],
  items: readonly Row<'items'>[] = [],
): readonly PlannedLine[] =>
  readItems({ newId: () => idOf(70, (ids += 1)), lines, items, context });

const word = fc.stringMatching(/^[A-Za-z|\\",;' ]{0,12}$/).map((text) => `x${text}`.trim());
const anyItem = fc
  .record({
    name: word,
    detail: word,
    price: fc.nat({ max: 99_999 }),
    otherPrice: fc.option(fc.nat({ max: 99_999 })),
    cost: fc.option(fc.nat({ max: 9_999_999 })),
    taxes: fc.subarray(context.taxes.map(({ id }) => id)),
    barcodes: fc.uniqueArray(word, { maxLength: 3 }),
    low: fc.nat({ max: 9_999_999 }),
    isOpenPrice: fc.boolean(),
    isStocked: fc.boolean(),
    maker: fc.option(fc.constant(idOf(21, 1))),
    choices: fc.constantFrom([], [{ name: 'Size', values: ['9 cm', '1 l | tall'] }]),
    reorder: fc.constantFrom([], [{ place: 'base', level: 2500 }]),
    isActive: fc.boolean(),
  })
  .map((fields): Row<'items'> => ({
    ...PLAIN_ITEM,
    ...fields,
    id: idOf(71, 1),
    setStamp: 'x',
  }));

describe('items as a table', () => {
  it('out and in again is the same item, whatever it is', () => {
    fc.assert(
      fc.property(anyItem, (one) => {
        const [again] = read(itemLines([one], context), [one]);
        assert.deepEqual([again?.verdict, again?.why], ['same', '']);
        const { setStamp: _stamp, ...body } = one;
        const [fresh] = read(itemLines([one], context));
        assert.equal(fresh?.verdict, 'new', fresh?.why);
        assert.deepEqual(fresh.body, body);
      }),
    );
  });
  it('writes items before their variants, so that a variant finds its item', () => {
    const parent = {
      ...item(1, 450),
      choices: [{ name: 'Size', values: ['a', 'b'] }],
      barcodes: [],
    };
    const variant = {
      ...item(2, 600),
      name: 'Aaa',
      variantOf: parent.id,
      values: ['a'],
      barcodes: [],
    };
    const lines = itemLines([variant, parent], context);
    assert.deepEqual(
      lines.map(({ id }) => id),
      [parent.id, variant.id],
    );
    assert.deepEqual(
      read(lines).map(({ verdict }) => verdict),
      ['new', 'new'],
    );
  });

  const lavender = { ...item(1, 450), name: 'Lavender', code: 'LAV', barcodes: ['5012345678900'] };
  it('finds an item by its id, its code, or its name, and says what changes', () => {
    const verdicts = (line: Record<string, string>) =>
      read([line], [lavender]).map(({ verdict, why, body }) => [verdict, why, body?.id]);
    const [id] = [lavender.id];
    assert.deepEqual(verdicts({ id, name: 'Lavender', price: '4.75' }), [['changed', 'price', id]]);
    assert.deepEqual(verdicts({ code: 'lav', name: 'Lavendel' }), [['changed', 'code, name', id]]);
    assert.deepEqual(verdicts({ name: 'LAVENDER', price: '4.50' }), [['changed', 'name', id]]);
    assert.deepEqual(verdicts({ code: 'LAV', name: 'Lavender' }), [['same', '', id]]);
  });

  const wrong: readonly (readonly [Record<string, string>, RegExp])[] = [
    [{ name: '', price: '4' }, /^name: there is none/],
    [{ name: 'Fern' }, /^price: there is none/],
    [{ name: 'Fern', price: 'dear' }, /^price: “dear” is not an amount/],
    [{ name: 'Fern', price: '4', low: 'few' }, /^low: /],
    [{ name: 'Fern', price: '4', taxes: 'VAT' }, /^taxes: there is no tax “VAT”/],
    [{ name: 'Fern', price: '4', maker: '99' }, /^maker: there is no maker 99/],
    [{ name: 'Fern', price: '4', barcodes: '5012345678901' }, /^barcodes: .* wrong check digit/],
    [{ name: 'Fern', price: '4', barcodes: '5012345678900' }, /^code: .* code of Lavender/],
    [{ name: 'Fern', price: '4', stocked: 'perhaps' }, /^stocked: “perhaps” is neither/],
    [{ name: 'Fern', price: '4', choices: '[{' }, /^choices: this is not JSON/],
    [{ name: 'Fern', price: '4', choices: '[{}]' }, /^choices\.0\.name/],
    [{ name: 'Fern', price: '4', variant_of: 'nothing' }, /^variant_of: there is no item/],
    [{ name: 'Fern', price: '4', decimals: '9' }, /^decimals/],
    [{ name: 'Fern', price: '4', colour: 'green' }, /^colour/],
    [{ name: 'Fern', price: '4', id: 'seven' }, /^id/],
    [{ name: 'F'.repeat(81), price: '4' }, /^name/],
  ];
  for (const [line, why] of wrong) {
    it(`says what is wrong with ${JSON.stringify(line).slice(0, 60)}`, () => {
      const [first] = read([line], [lavender]);
      assert.equal(first?.verdict, 'wrong');
      assert.match(first.why, why);
      assert.deepEqual([first.line, first.body], [2, null]);
    });
  }
  it('is the same item on two devices that take one file in, by its code or its name', () => {
    const file = [
      { name: 'Fern', code: 'FER', price: '4' },
      { name: 'Moss', detail: 'bag', price: '3' },
    ];
    const idsOf = (lines: readonly PlannedLine[]) => lines.map(({ body }) => body?.id);
    const [here, there] = [read(file), read(file)];
    assert.deepEqual(idsOf(here), idsOf(there));
    // Taken in once more, nothing of it is new; what was called so and is called otherwise by now stays.
    const known = here.flatMap(({ body }) => (body === null ? [] : [{ ...body, setStamp: 'x' }]));
    assert.deepEqual(
      read(file, known).map(({ verdict }) => verdict),
      ['same', 'same'],
    );
    const renamed = known.map((each) => ({
      ...each,
      code: `${each.code}2`,
      name: `${each.name} 2`,
    }));
    const again = read(file, renamed);
    assert.deepEqual(
      again.map(({ verdict, body }) => [verdict, known.some(({ id }) => id === body?.id)]),
      [
        ['new', false],
        ['new', false],
      ],
    );
  });
  it('a second line of the same item is wrong, and the lines after it go on', () => {
    const lines = ['Fern', 'Fern', 'Moss'].map((name) => ({ name, price: '4' }));
    assert.deepEqual(
      read(lines).map(({ verdict }) => verdict),
      ['new', 'wrong', 'new'],
    );
  });
});

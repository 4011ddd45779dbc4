import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Row } from '../books/tables';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { idOf, item } from '../testing/made-up-business';
import { costText } from '../money/cost-text';
import { chooseExtra, chosenExtras, extrasToBegin, lackingGroup } from './extras';
import { checkDigit, hasRightCheckDigit, looksLikeGtin, readLabel } from './gtin';
import { hoursOf, hoursText } from './hours';
import { setItem, type ItemRefusal, type TypedItem } from './set-item';
import { choose, chosenToBegin, combinations, possible, variantFor, variantsOf } from './variants';

const typed = (more: Partial<TypedItem> = {}): TypedItem => ({
  name: 'Pelargonium',
  detail: '',
  description: '',
  code: 'PEL',
  barcodes: '',
  category: 'Pots',
  colour: '#1c684c',
  unit: '',
  decimals: 0,
  price: '4.50',
  otherPrice: '',
  isOpenPrice: false,
  isTimed: false,
  taxes: [],
  cost: '',
  low: '3',
  reorder: '',
  isStocked: true,
  choices: [],
  variants: [],
  extras: [],
  maker: null,
  commodityCode: '',
  isReturnable: true,
  earnsPoints: true,
  isActive: true,
  ...more,
});
const sizes = { name: 'Size', values: '9 cm, 1 l, 2 l' };
const colours = { name: 'Colour', values: 'red, white' };

const POTS = { id: idOf(31, 1), setStamp: 'x', name: 'Pots', sort: 0, isActive: true };

/** Sets an item up and gives the rows that come of it. */
function rowsOf(more: Partial<TypedItem>, items: readonly Row<'items'>[] = []): Row<'items'>[] {
  const writer = new DeviceWriter(1);
  const outcome = setItem({
    newId: writer.newId,
    id: items.find(({ variantOf }) => variantOf === null)?.id ?? null,
    typed: typed(more),
    currency: 'GBP',
    items,
    categories: [POTS],
  });
  assert.ok(outcome.ok, JSON.stringify(outcome));
  for (const entry of writer.append(outcome.drafts, 0)) assert.ok(readEntry(entry).ok);
  return outcome.drafts.map(({ body }) => ({ ...body, setStamp: 'x' }) as unknown as Row<'items'>);
}
function refusalOf(more: Partial<TypedItem>, items: readonly Row<'items'>[] = []): ItemRefusal {
  const outcome = setItem({
    newId: new DeviceWriter(1).newId,
    id: null,
    typed: typed(more),
    currency: 'GBP',
    items,
    categories: [],
  });
  assert.ok(!outcome.ok);
  return outcome.refusal;
}

describe('setting an item up', () => {
  it('takes what was typed', () => {
    const [made] = rowsOf({ price: '£4.5', cost: '1.8125', low: '2', reorder: '10' });
    assert.deepEqual(
      [made?.price, made?.cost, made?.low, made?.reorder],
      [450, 181_250, 2000, [{ place: 'base', level: 10_000 }]],
    );
    assert.equal(costText(made?.cost ?? null, 'GBP'), '1.8125');
    assert.equal(costText(4_500_00, 'GBP'), '4.50');
  });

  it('an item with choices has a variant for each combination, each with its own code and price', () => {
    const rows = rowsOf({
      choices: [sizes, colours],
      variants: [
        { values: ['1 l', 'red'], code: 'PEL1R', barcodes: '', price: '6', isSold: true },
        { values: ['2 l', 'white'], code: '', barcodes: '', price: '', isSold: false },
      ],
    });
    assert.equal(rows.length, 1 + 5);
    const red = rows.find(({ code }) => code === 'PEL1R');
    assert.deepEqual([red?.price, red?.detail, red?.variantOf], [600, '1 l, red', rows[0]?.id]);
    assert.ok(rows.every(({ values }) => values.join() !== '2 l,white'));
  });

  it('a value that is no more puts its variants away, and they keep who they were', () => {
    const before = rowsOf({ choices: [sizes] });
    const after = rowsOf({ choices: [{ name: 'Size', values: '9 cm, 2 l' }] }, before);
    const state = new Map(after.map(({ id, detail, isActive }) => [id, [detail, isActive]]));
    assert.deepEqual(
      before.slice(1).map(({ id }) => state.get(id)),
      [
        ['9 cm', true],
        ['1 l', false],
        ['2 l', true],
      ],
    );
  });

  const other = { ...item(1, 100), code: 'LAV', barcodes: ['5012345678900'], name: 'Lavender' };
  const group = { name: 'Wrap', least: '0', most: '1', options: [] };
  const wrong: readonly (readonly [string, Partial<TypedItem>, string, string])[] = [
    ['no name', { name: ' ' }, 'name', 'item/empty'],
    ['a price in words', { price: 'five' }, 'price', 'item/not-an-amount'],
    ['a cost too fine', { cost: '1.123456' }, 'cost', 'item/not-an-amount'],
    ['half a quantity of a quantity', { low: 'x' }, 'low', 'item/not-a-quantity'],
    ['a code that is taken', { code: 'lav' }, 'code', 'item/code-taken'],
    ['a barcode that is taken', { barcodes: '5012345678900' }, 'code', 'item/code-taken'],
    ['a wrong check digit', { barcodes: '5012345678901' }, 'barcodes', 'item/check-digit'],
    [
      'a choice without values',
      { choices: [{ name: 'Size', values: '' }] },
      'choices',
      'item/empty',
    ],
    ['a value twice', { choices: [{ name: 'S', values: 'a, a' }] }, 'choices', 'item/twice'],
    ['a group of nothing', { extras: [group] }, 'extras', 'item/group-counts'],
  ];
  for (const [about, more, field, code] of wrong) {
    it(`refuses ${about}, and says where`, () => {
      const refusal = refusalOf(more, [other]);
      assert.deepEqual([refusal.field, refusal.code], [field, code]);
    });
  }
  it('says what the check digit should be', () => {
    const refusal = refusalOf({ barcodes: '5012345678901' });
    assert.ok(refusal.code === 'item/check-digit');
    assert.equal(refusal.right, '0');
  });
});

describe('choosing a variant', () => {
  const rows = rowsOf({
    choices: [sizes, colours],
    variants: [{ values: ['2 l', 'white'], code: '', barcodes: '', price: '', isSold: false }],
  });
  const parent = rows[0]!;
  const variants = variantsOf(parent, rows);

  it('lists variants in the order of the values', () =>
    assert.deepEqual(
      variants.map(({ detail }) => detail),
      ['9 cm, red', '9 cm, white', '1 l, red', '1 l, white', '2 l, red'],
    ));
  it('in any order, offering only what still leads somewhere, each step undone by itself', () => {
    let chosen = chosenToBegin(parent.choices);
    chosen = choose(chosen, 1, 'white');
    assert.deepEqual([...possible(variants, chosen, 0)], ['9 cm', '1 l']);
    assert.equal(variantFor(variants, chosen), undefined);
    chosen = choose(chosen, 0, '1 l');
    assert.equal(variantFor(variants, chosen)?.detail, '1 l, white');
    chosen = choose(chosen, 1, 'white');
    assert.deepEqual(chosen, ['1 l', null]);
    assert.deepEqual([...possible(variants, chosen, 1)], ['red', 'white']);
  });
  it('a choice with one value is made already', () =>
    assert.deepEqual(chosenToBegin([{ name: 'Size', values: ['9 cm'] }]), ['9 cm']));
  it('no choices have one combination, of nothing', () => assert.deepEqual(combinations([]), [[]]));
});

describe('choosing extras', () => {
  const groups = [
    {
      name: 'Compost',
      least: 1,
      most: 1,
      options: [
        { name: 'Peat-free', price: 0, isDefault: true },
        { name: 'Ericaceous', price: 80, isDefault: false },
      ],
    },
    {
      name: 'Extras',
      least: 0,
      most: 2,
      options: ['Wrap', 'Card', 'Stake'].map((name) => ({ name, price: 50, isDefault: false })),
    },
  ];
  it('begins with the defaults', () =>
    assert.deepEqual(extrasToBegin(groups), [['Peat-free'], []]));
  it('of a group of one, another takes its place', () =>
    assert.deepEqual(chooseExtra(groups, extrasToBegin(groups), 0, 'Ericaceous'), [
      ['Ericaceous'],
      [],
    ]));
  it('beyond at most the first makes way, and a second tap takes it back', () => {
    let chosen = extrasToBegin(groups);
    for (const name of ['Card', 'Wrap', 'Stake']) chosen = chooseExtra(groups, chosen, 1, name);
    assert.deepEqual(chosen[1], ['Wrap', 'Stake']);
    chosen = chooseExtra(groups, chosen, 1, 'Wrap');
    assert.deepEqual(chosenExtras(groups, chosen), [
      { name: 'Peat-free', price: 0 },
      { name: 'Stake', price: 50 },
    ]);
  });
  it('says of which group too few are chosen', () => {
    assert.equal(lackingGroup(groups, extrasToBegin(groups)), null);
    const none = chooseExtra(groups, extrasToBegin(groups), 0, 'Peat-free');
    assert.equal(lackingGroup(groups, none)?.name, 'Compost');
  });
});

describe('numbers on goods', () => {
  for (const gtin of ['5012345678900', '96385074', '036000291452', '15012345678907'])
    it(`${gtin} has the right check digit`, () =>
      assert.ok(looksLikeGtin(gtin) && hasRightCheckDigit(gtin)));
  it('any other last figure is wrong', () => {
    fc.assert(
      fc.property(fc.stringMatching(/^\d{12}$/), fc.nat({ max: 9 }), (body, figure) => {
        const right = checkDigit(body);
        assert.equal(hasRightCheckDigit(`${body}${String(figure)}`), figure === right);
      }),
    );
  });
  const label = (body: string): string => `${body}${String(checkDigit(body))}`;
  it('a label of the shop carries a price or a measure', () => {
    assert.deepEqual(readLabel(label('201234500485')), {
      code: '12345',
      carries: 'price',
      value: 485,
    });
    assert.deepEqual(readLabel(label('251234500385')), {
      code: '12345',
      carries: 'measure',
      value: 385,
    });
  });
  it('a label with a wrong check digit, or another number, is none', () => {
    const wrong = `201234500485${String((checkDigit('201234500485') + 1) % 10)}`;
    for (const text of [wrong, '5012345678900', '2012345']) assert.equal(readLabel(text), null);
  });
});

describe('hours and minutes', () => {
  for (const [text, is] of [
    ['1:20', 1333],
    ['1 h 20 min', 1333],
    ['1h20', 1333],
    ['2 h', 2000],
    ['45 min', 750],
    ['80 min', 1333],
    ['1.5', 1500],
    ['1,25', 1250],
    ['1:75', null],
    ['soon', null],
    ['', null],
  ] as const)
    it(`“${text}” is ${String(is)}`, () => assert.equal(hoursOf(text), is));
  it('whole minutes are read as they were written', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5999 }), (minutes) => {
        const quantity = hoursOf(`${String(minutes)} min`);
        assert.equal(hoursOf(hoursText(quantity ?? 0)), quantity);
      }),
    );
  });
});

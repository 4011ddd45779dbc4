import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Row } from '../books/tables';
import { kinds, isKind } from '../daybook/kinds';
import { PLAIN_ITEM } from '../goods/plain-item';
import type { LineNow } from '../stock/list-state';
import { idOf, itemId } from '../testing/made-up-business';
import {
  readCountLines,
  readListLines,
  readSupplies,
  supplyLines,
  type CsvLine,
  type Planned,
} from './goods-table';

let ids = 0;
const newId = (): string => idOf(74, (ids += 1));
const item = (n: number, name: string, more: Partial<Row<'items'>> = {}): Row<'items'> => ({
  ...{ ...PLAIN_ITEM, id: itemId(n), setStamp: 'x', name, code: `T${String(n)}`, price: 1 },
  ...more,
});
const ITEMS = [
  item(1, 'Lavender', { detail: '10 cm pot', barcodes: ['5099'] }),
  item(2, 'Fern', { detail: 'small' }),
  item(3, 'Fern', { detail: 'large' }),
  item(4, 'Bulbs', { decimals: 3, unit: 'kg' }),
  item(5, 'Advice', { isStocked: false }),
];
const LIST = { id: idOf(50, 1), event: null, stage: '' as const };
const LINE: LineNow = {
  ...{ item: itemId(1), wanted: 12_000, price: null, note: '', packed: 0, sent: 0, received: 0 },
};
const verdicts = (planned: readonly Planned[]): string[] => {
  for (const { drafts } of planned)
    for (const { kind, body } of drafts) if (isKind(kind)) kinds[kind].body.parse(body);
  return planned.map(({ line, verdict, why }) => `${String(line)} ${verdict} ${why}`.trim());
};

describe('a file of what a list wants', () => {
  const read = (...lines: CsvLine[]): string[] =>
    verdicts(
      readListLines({
        ...{ newId, lines, items: ITEMS, list: LIST, now: [LINE], currency: 'GBP' },
      }),
    );

  it('says what each line does, and what is wrong with it', () => {
    assert.deepEqual(
      read(
        { code: 't1', wanted: '14', price: '1.50' },
        { item: 'Fern, small', wanted: '6' },
        { code: '', item: 'Bulbs', wanted: '0,385' },
        { item: 'Fern', wanted: '1' },
        { code: 'T9', wanted: '1' },
        { code: 'T3', wanted: '1.5' },
        { code: '5099', wanted: '2' },
        { code: 'T5', wanted: '2' },
        { wanted: '2' },
        { code: 'T3', wanted: '' },
      ),
      [
        '2 changed',
        '3 new',
        '4 new',
        '5 wrong several things are called Fern; give its code',
        '6 wrong nothing is called T9',
        '7 wrong wanted: “1.5” has more decimals than Fern, large is counted in',
        '8 wrong a line before this one is of the same item',
        '9 wrong Advice is not counted',
        '10 wrong neither “code” nor “item” says what it is',
        '11 wrong a line before this one is of the same item',
      ],
    );
    assert.deepEqual(read({ code: 'T1', wanted: '12' }), ['2 same']);
    assert.deepEqual(read({ code: 'T1', wanted: 'many' }), [
      '2 wrong wanted: “many” is no quantity',
    ]);
    assert.deepEqual(read({ code: 'T1', wanted: '1', price: 'x' }), [
      '2 wrong price: “x” is no price',
    ]);
  });
});

describe('a file of what was counted', () => {
  it('has all that is there, not what is more; what is empty was not counted', () => {
    const planned = readCountLines({
      ...{ newId, items: ITEMS, count: { id: idOf(51, 1), event: null, how: '' } },
      counted: new Map([[itemId(1), 10_000]]),
      lines: [
        { code: 'T1', counted: '12' },
        { code: 'T2', counted: '0' },
        { code: 'T3', counted: '' },
        { code: 'T8', counted: '' },
      ],
    });
    assert.deepEqual(verdicts(planned), [
      '2 changed',
      '3 new',
      '4 same not counted',
      '5 wrong nothing is called T8',
    ]);
    assert.deepEqual(planned[0]?.drafts[0]?.body['goods'], [{ item: itemId(1), quantity: 2000 }]);
  });
});

describe('a file of suppliers', () => {
  const suppliers = ['Ferris', 'Holt'].map((name, n) => ({
    ...{ id: idOf(52, n + 1), name, isActive: true },
  }));
  const [ferris, holt] = suppliers.map(({ id }) => id) as [string, string];
  const supplies = new Map<string, Row<'supplies'>>([
    [
      itemId(1),
      {
        ...{ id: itemId(1), setStamp: 'x', pars: [{ place: 'base', par: 9000 }] },
        ...{ weight: 420, perCrate: null },
        suppliers: [
          { supplier: ferris, code: '=F1', pack: 12_000, price: 171_000 },
          { supplier: holt, code: 'H1', pack: 1000, price: null },
        ],
      },
    ],
  ]);
  const read = (lines: readonly CsvLine[]): readonly Planned[] =>
    readSupplies({ ...{ newId, lines, items: ITEMS, suppliers, supplies, currency: 'GBP' } });

  it('gives the same when it is taken in again', () => {
    const lines = supplyLines(ITEMS, supplies, suppliers, 'GBP');
    assert.equal(lines.length, 2);
    assert.equal(lines[0]?.their_code, "'=F1");
    assert.deepEqual(verdicts(read(lines)), ['2 same', '3 same']);
  });

  it('changes who is preferred, and keeps what it does not speak of', () => {
    const line = { code: 'T1', supplier: 'holt', their_code: 'H2', pack: '6', price: '1.6' };
    const [planned] = read([{ ...line, preferred: 'yes' }]);
    const body = kinds['item.supply'].body.parse(planned?.drafts[0]?.body);
    assert.deepEqual(
      body.suppliers.map(({ supplier, pack }) => [supplier, pack]),
      [
        [holt, 6000],
        [ferris, 12_000],
      ],
    );
    assert.deepEqual([body.pars, body.weight], [[{ place: 'base', par: 9000 }], 420]);
    assert.deepEqual(
      verdicts(
        read([
          { ...line, code: 'T2' },
          { ...line, supplier: 'Nobody' },
          { ...line, pack: '0' },
          { ...line, price: 'x' },
        ]),
      ),
      [
        '2 new',
        '3 wrong supplier: there is no Nobody',
        '4 wrong pack: “0” is no pack; 1 or more',
        '5 wrong price: “x” is no price',
      ],
    );
  });
});

/** Lists of goods: what is wanted, and what was done about it. */
import type { EntryOf, KnownEntry } from '../../daybook/kinds';
import { outsideId } from '../../daybook/outside-id';
import type { Row } from '../tables';
import { merge, put, type Change } from '../change';
import { saidBy } from './said-by';

/** One item has one line on a list, whichever devices write it down. */
export const lineIdOf = (list: string, item: string): string => outsideId(list, 'line', item);

export const listSet = (entry: EntryOf<'list.set'>): Change[] => {
  const { list, ...fields } = entry.body;
  return [
    merge('lists', list, 'set', entry.stamp, { ...fields, event: entry.event }),
    act(entry, { list, does: 'set', lines: 0, quantity: 0, note: '' }),
  ];
};

export const listLine = ({ stamp, body }: EntryOf<'list.line'>): Change[] => [
  merge('listLines', lineIdOf(body.list, body.item), 'set', stamp, body),
];

export const listStage = (entry: EntryOf<'list.stage'>): Change[] => {
  const { list, to, why } = entry.body;
  return [
    merge('lists', list, 'stage', entry.stamp, { stage: to, why }),
    act(entry, { list, does: to, lines: 0, quantity: 0, note: why }),
  ];
};

export const listPacked = (entry: EntryOf<'list.packed'>): Change[] => {
  const { list, goods } = entry.body;
  return [act(entry, { list, does: 'packed', ...muchOf(goods), note: '' })];
};

export const listMailed = (entry: EntryOf<'list.mailed'>): Change[] => [
  act(entry, { list: entry.body.list, does: 'mailed', lines: 0, quantity: 0, note: '' }),
];

export const movedForList = (entry: EntryOf<'stock.moved'>): Change[] => {
  const { list, goods, note } = entry.body;
  return list === undefined
    ? []
    : [act(entry, { list: list.id, does: list.does, ...muchOf(goods), note })];
};

type Acts = Row<'listActs'>;
const act = (entry: KnownEntry, does: Omit<Acts, 'id' | 'event' | 'at' | 'by' | 'device'>) =>
  put('listActs', { id: entry.id, ...saidBy(entry), device: entry.device, ...does });

const muchOf = (goods: readonly { readonly quantity: number }[]) => ({
  lines: goods.length,
  quantity: goods.reduce((total, { quantity }) => total + quantity, 0),
});

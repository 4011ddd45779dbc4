/** Cash drawers and goods: what was opened, counted and moved. */
import type { BodyOf } from '../../daybook/kinds';
import type { Pieces } from '../../money/worth';
import { sumsBy } from '../sum-tables';
import { facts, id, json, text, textOrNull, whole, word } from '../table-spec';
import { saidBy } from './said-by';

export const drawerAndStockTables = {
  drawers: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      name: text(80),
      float: whole(),
      counts: json<readonly Pieces[]>([]),
    },
    { indexes: ['event'] },
  ),
  drawerSums: sumsBy('drawerSums', { drawer: id() }),
  drawerReads: facts(
    ['id'],
    {
      id: id(),
      drawer: id(),
      ...saidBy,
      number: whole(),
      counts: json<readonly Pieces[]>([]),
      expected: whole(),
      counted: whole(),
      difference: whole(),
      reason: text(500),
    },
    { indexes: ['drawer', 'event'] },
  ),
  movements: facts(
    ['id', 'item'],
    {
      id: text(44),
      item: id(),
      event: textOrNull(40),
      at: text(30),
      by: textOrNull(40),
      from: id(),
      to: id(),
      quantity: whole(),
      reason: word<BodyOf<'stock.moved'>['reason']>(20),
    },
    { indexes: ['event'], keep: 'recent' },
  ),
  stock: sumsBy('stock', { place: id(), item: id() }, { indexes: ['place'] }),
} as const;

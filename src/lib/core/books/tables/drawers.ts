/** Cash drawers: what was opened and counted. */
import type { Pieces } from '../../money/worth';
import { sumsBy } from '../sum-tables';
import { facts, id, json, text, whole } from '../table-spec';
import { saidBy } from './said-by';

export const drawerTables = {
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
} as const;

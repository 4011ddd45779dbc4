/** Cash: drawers that were opened and counted, and what was moved in between. */
import type { Pieces } from '../../money/worth';
import { sumsBy } from '../sum-tables';
import { facts, id, json, text, whole, wholeOrNull } from '../table-spec';
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
      stays: whole(),
      bag: json<{ readonly number: string; readonly amount: number } | null>(null),
      first: wholeOrNull(),
    },
    { indexes: ['drawer', 'event'] },
  ),
  /** Cash in between; a bag that was filled from the safe or a drawer has the id of its row. */
  cashMoves: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      from: text(50),
      to: text(50),
      amount: whole(),
      what: text(120),
      bag: text(40),
      counts: json<readonly Pieces[]>([]),
      photo: json<{ readonly data: string } | null>(null),
    },
    { indexes: ['event', 'from', 'to'], keep: 'recent' },
  ),
  /** What of a drawer was heard of after its final read. */
  drawerLates: facts(
    ['id'],
    { id: id(), drawer: id(), ...saidBy, amount: whole(), reason: text(500) },
    { indexes: ['drawer', 'event'] },
  ),
} as const;

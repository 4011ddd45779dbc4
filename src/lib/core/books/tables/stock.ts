/** Goods: where they can be, who they come from, how much is where, and what moved them. */
import type { BodyOf, Kind } from '../../daybook/kinds';
import { sumsBy } from '../sum-tables';
import {
  facts,
  flag,
  id,
  json,
  records,
  text,
  textOrNull,
  whole,
  wholeOrNull,
  word,
} from '../table-spec';
import type { ItemSupplier, Par } from './fields';
import { saidBy } from './said-by';

export const stockTables = {
  places: records({
    set: {
      name: text(80),
      sort: word<BodyOf<'place.set'>['sort']>(10),
      within: textOrNull(40),
      code: text(40),
      position: whole(),
      mostWeight: wholeOrNull(),
      mostCrates: wholeOrNull(),
      isActive: flag(),
    },
  }),
  suppliers: records({
    set: {
      name: text(80),
      email: text(120),
      phone: text(40),
      days: whole(),
      note: text(500),
      isActive: flag(),
    },
  }),
  /** How goods are bought, kept and carried, by item. */
  supplies: records({
    set: {
      suppliers: json<readonly ItemSupplier[]>([]),
      pars: json<readonly Par[]>([]),
      weight: wholeOrNull(),
      perCrate: wholeOrNull(),
    },
  }),
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
      list: textOrNull(40),
      /** What it cost, in minor units; nothing where no money moved. */
      amount: whole(),
      note: text(500),
    },
    { indexes: ['event', 'list'], keep: 'recent' },
  ),
  /** Each time an item came to a place or left it, whatever moved it: what stock was at any stamp, and why. */
  moves: facts(
    ['id'],
    {
      id: text(44),
      ...saidBy,
      place: id(),
      item: id(),
      quantity: whole(),
      /** From when on it counts: of what was counted and accepted, when it was counted. */
      stamp: text(60),
      kind: word<Kind>(24),
      /** The document that says so: a sale, a movement, a count. */
      doc: id(),
    },
    { indexes: ['place', 'item', 'at'], keep: 'recent' },
  ),
  stock: sumsBy('stock', { place: id(), item: id() }, { indexes: ['place'] }),
} as const;

/** Lists of goods, and counts of stock: what is wanted, what was done, what was found. */
import type { BodyOf } from '../../daybook/kinds';
import { sumsBy } from '../sum-tables';
import {
  facts,
  flag,
  id,
  records,
  text,
  textOrNull,
  whole,
  wholeOrNull,
  word,
} from '../table-spec';
import { saidBy } from './said-by';

export const listTables = {
  lists: records({
    set: {
      use: word<BodyOf<'list.set'>['use']>(10),
      event: textOrNull(40),
      deviceNumber: whole(),
      number: whole(),
      name: text(80),
      from: text(40),
      to: text(40),
      supplier: textOrNull(40),
      van: textOrNull(40),
      day: textOrNull(10),
      note: text(500),
    },
    stage: { stage: word<BodyOf<'list.stage'>['to'] | ''>(10), why: text(200) },
  }),
  /** One for each item of a list; its id is made of both (books/changes/list.ts). */
  listLines: records(
    {
      set: {
        list: text(40),
        item: text(40),
        wanted: whole(),
        price: wholeOrNull(),
        note: text(200),
      },
    },
    { indexes: ['list'] },
  ),
  listSums: sumsBy('listSums', { list: id(), item: id() }, { indexes: ['list'] }),
  /** What was done about a list, one after another. */
  listActs: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      list: id(),
      does: word<
        'set' | 'packed' | 'send' | 'receive' | 'move' | 'mailed' | BodyOf<'list.stage'>['to']
      >(10),
      /** How many items, and how much of them. */
      lines: whole(),
      quantity: whole(),
      note: text(500),
    },
    { indexes: ['list', 'event'], keep: 'recent' },
  ),
  counts: records({
    set: {
      event: textOrNull(40),
      at: text(30),
      by: textOrNull(40),
      device: text(40),
      deviceNumber: whole(),
      number: whole(),
      name: text(80),
      place: text(40),
      category: text(80),
      isBlind: flag(),
      note: text(500),
    },
    ended: { how: word<BodyOf<'count.ended'>['how'] | ''>(4) },
  }),
  countNotes: facts(
    ['id'],
    {
      id: text(44),
      ...saidBy,
      count: id(),
      item: id(),
      quantity: whole(),
      stamp: text(60),
    },
    { indexes: ['count', 'event'], keep: 'recent' },
  ),
  countsAccepted: facts(
    ['id'],
    {
      id: text(44),
      ...saidBy,
      count: id(),
      place: id(),
      item: id(),
      counted: whole(),
      expected: whole(),
      /** Of what was counted last. */
      stamp: text(60),
      lost: whole(),
      retail: whole(),
      reason: text(200),
    },
    { indexes: ['count', 'place', 'event'], keep: 'recent' },
  ),
} as const;

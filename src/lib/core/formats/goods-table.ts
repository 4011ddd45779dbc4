/** Lines of goods in CSV files: what a list wants, what was counted, whom goods are bought from; read and judged line by line. */
import type { ItemSupplier, Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { itemName } from '../goods/item-name';
import { costText, readCost } from '../money/cost-text';
import { readQuantity } from '../money/typed';
import { quantityText, thousandths } from '../money/units';
import { noteCounted } from '../stock/count';
import type { LineNow } from '../stock/list-state';
import { setLines, typedQuantity } from '../stock/set-list';
import { guarded, unguarded } from './csv-cell';

type Item = Row<'items'>;
export type CsvLine = Readonly<Record<string, string>>;

/** What a line of a file will do, and why a wrong one will not. */
export interface Planned {
  /** As a person counts: the heading is line 1. */
  readonly line: number;
  readonly name: string;
  readonly verdict: 'new' | 'changed' | 'same' | 'wrong';
  readonly why: string;
  readonly drafts: readonly Draft[];
}

/** Goods by what a line may call them: a code, a barcode, or the whole name. */
export class Named {
  readonly #by = new Map<string, Item | null>();
  readonly #seen = new Set<string>();

  constructor(items: Iterable<Item>) {
    for (const item of items) {
      if (item.setStamp === '' || !item.isActive || item.choices.length > 0) continue;
      for (const name of [item.code, ...item.barcodes, itemName(item), item.name]) {
        const key = name.trim().toLowerCase();
        if (key === '') continue;
        // What several are called is none of them.
        const isOther = this.#by.has(key) && this.#by.get(key)?.id !== item.id;
        this.#by.set(key, isOther ? null : item);
      }
    }
  }
  /** @returns The item, or why not. */
  find(line: CsvLine): Item | string {
    const [code, name] = [cell(line, 'code'), cell(line, 'item')];
    if (code === '' && name === '') return 'neither “code” nor “item” says what it is';
    const found = this.#by.get(code.toLowerCase()) ?? this.#by.get(name.toLowerCase());
    if (found === undefined || found === null)
      return found === null && code === ''
        ? `several things are called ${name}; give its code`
        : `nothing is called ${[code, name].filter((part) => part !== '').join(' or ')}`;
    return found;
  }
  isAgain(item: string): boolean {
    const isAgain = this.#seen.has(item);
    this.#seen.add(item);
    return isAgain;
  }
}

const cell = (line: CsvLine, column: string): string => unguarded(line[column] ?? '').trim();

interface Found {
  readonly item: Item;
  /** Thousandths. */
  readonly quantity: number;
}

/** What the line is of, where that is counted; or why not. */
function countedIn(line: CsvLine, named: Named): Item | string {
  const item = named.find(line);
  if (typeof item === 'string' || item.isStocked) return item;
  return `${itemName(item)} is not counted`;
}

/** One line as goods and how much of them, or what is wrong with it. */
function goodsOf(line: CsvLine, named: Named, column: string): Found | string {
  const item = countedIn(line, named);
  if (typeof item === 'string') return item;
  if (named.isAgain(item.id)) return 'a line before this one is of the same item';
  const text = cell(line, column);
  if (text === '') return `${column}: nothing stands there`;
  const read = typedQuantity(text, item);
  if (read.ok) return { item, quantity: read.quantity };
  return read.refusal.code === 'list/decimals'
    ? `${column}: “${text}” has more decimals than ${itemName(item)} is counted in`
    : `${column}: “${text}” is no quantity`;
}

const wrongLine = (line: CsvLine, at: number, why: string): Planned => ({
  line: at + 2,
  name: cell(line, 'item') || cell(line, 'code'),
  verdict: 'wrong',
  why,
  drafts: [],
});

export interface ReadListLines {
  readonly newId: () => string;
  readonly lines: readonly CsvLine[];
  readonly items: Iterable<Item>;
  readonly list: Pick<Row<'lists'>, 'id' | 'event' | 'stage'>;
  readonly now: readonly LineNow[];
  readonly currency: string;
}

/** What a list is to want: columns `code` or `item`, `wanted`, and if they are there `price` and `note`. */
export function readListLines(command: ReadListLines): readonly Planned[] {
  const { newId, lines, list, now, currency } = command;
  const named = new Named(command.items);
  const known = new Map(now.map((line) => [line.item, line]));
  return lines.map((line, at) => {
    const found = goodsOf(line, named, 'wanted');
    if (typeof found === 'string') return wrongLine(line, at, found);
    const typed = cell(line, 'price');
    const price = typed === '' ? null : readCost(typed, currency);
    if (typed !== '' && price === null) return wrongLine(line, at, `price: “${typed}” is no price`);
    const { item, quantity: wanted } = found;
    const outcome = setLines(newId, list, now, [
      {
        ...{ item: item.id, wanted },
        ...(line['price'] === undefined ? {} : { price }),
        ...(line['note'] === undefined ? {} : { note: cell(line, 'note') }),
      },
    ]);
    if (!outcome.ok) return wrongLine(line, at, 'the list has ended');
    const verdict = outcome.drafts.length === 0 ? 'same' : known.has(item.id) ? 'changed' : 'new';
    return { line: at + 2, name: itemName(item), verdict, why: '', drafts: outcome.drafts };
  });
}

export interface ReadCountLines {
  readonly newId: () => string;
  readonly lines: readonly CsvLine[];
  readonly items: Iterable<Item>;
  readonly count: Pick<Row<'counts'>, 'id' | 'event' | 'how'>;
  /** What was counted so far, by item; thousandths. */
  readonly counted: ReadonlyMap<string, number>;
}

/** What was counted: columns `code` or `item`, and `counted`, which is all of it and not what is more. */
export function readCountLines(command: ReadCountLines): readonly Planned[] {
  const { newId, lines, count, counted } = command;
  const named = new Named(command.items);
  return lines.map((line, at) => {
    // An item that nobody has counted stays as it is.
    if (cell(line, 'counted') === '' && typeof countedIn(line, named) !== 'string')
      return { ...wrongLine(line, at, 'not counted'), verdict: 'same' };
    const found = goodsOf(line, named, 'counted');
    if (typeof found === 'string') return wrongLine(line, at, found);
    const { item, quantity } = found;
    const before = counted.get(item.id);
    const same = { line: at + 2, name: itemName(item), why: '', drafts: [] };
    if (before === quantity) return { ...same, verdict: 'same' };
    const goods = [{ item: item.id, quantity: quantity - (before ?? 0) }];
    const outcome = noteCounted(newId, count, goods);
    if (!outcome.ok) return wrongLine(line, at, 'the count is over');
    const verdict = before === undefined ? 'new' : 'changed';
    return { ...same, verdict, drafts: outcome.drafts };
  });
}

export interface ReadSupplies {
  readonly newId: () => string;
  readonly lines: readonly CsvLine[];
  readonly items: Iterable<Item>;
  readonly suppliers: readonly Pick<Row<'suppliers'>, 'id' | 'name' | 'isActive'>[];
  readonly supplies: ReadonlyMap<string, Row<'supplies'>>;
  readonly currency: string;
}

/** The columns of a file of suppliers, in their order. */
export const SUPPLY_COLUMNS = [
  'code',
  'item',
  'supplier',
  'their_code',
  'pack',
  'price',
  'preferred',
] as const;

/** A line for each item and supplier, as they stand. */
export function supplyLines(
  items: Iterable<Item>,
  supplies: ReadonlyMap<string, Row<'supplies'>>,
  suppliers: readonly Pick<Row<'suppliers'>, 'id' | 'name'>[],
  currency: string,
): Record<(typeof SUPPLY_COLUMNS)[number], string>[] {
  const names = new Map(suppliers.map(({ id, name }) => [id, name]));
  return [...items].flatMap((item) =>
    (supplies.get(item.id)?.suppliers ?? []).map(({ supplier, code, pack, price }, at) => ({
      code: guarded(item.code),
      item: guarded(itemName(item)),
      supplier: guarded(names.get(supplier) ?? ''),
      their_code: guarded(code),
      pack: quantityText(thousandths(pack)),
      price: costText(price, currency),
      preferred: at === 0 ? 'yes' : 'no',
    })),
  );
}

/** Whom goods are bought from; suppliers must be there already. What a file does not speak of stays. */
export function readSupplies(command: ReadSupplies): readonly Planned[] {
  const { newId, lines, supplies, currency } = command;
  const named = new Named(command.items);
  const byName = new Map(
    command.suppliers
      .filter(({ isActive }) => isActive)
      .map(({ id, name }) => [name.toLowerCase(), id]),
  );
  /** As it is after the lines so far. */
  const now = new Map<string, readonly ItemSupplier[]>();
  return lines.map((line, at): Planned => {
    const item = countedIn(line, named);
    if (typeof item === 'string') return wrongLine(line, at, item);
    const supplier = byName.get(cell(line, 'supplier').toLowerCase());
    if (supplier === undefined)
      return wrongLine(line, at, `supplier: there is no ${cell(line, 'supplier') || 'name'}`);
    const [packText, priceText] = [cell(line, 'pack'), cell(line, 'price')];
    const pack = packText === '' ? 1000 : readQuantity(packText);
    if (pack === null || pack <= 0)
      return wrongLine(line, at, `pack: “${packText}” is no pack; 1 or more`);
    const price = priceText === '' ? null : readCost(priceText, currency);
    if (price === null && priceText !== '')
      return wrongLine(line, at, `price: “${priceText}” is no price`);
    const known = supplies.get(item.id);
    const before = now.get(item.id) ?? known?.suppliers ?? [];
    const said = { supplier, code: cell(line, 'their_code').slice(0, 40), pack, price };
    const was = before.find((each) => each.supplier === supplier);
    const others = before.filter((each) => each.supplier !== supplier);
    const isFirst = /^(yes|y|1|true)$/i.test(cell(line, 'preferred'));
    const after =
      was === undefined
        ? isFirst
          ? [said, ...others]
          : [...others, said]
        : isFirst
          ? [said, ...others]
          : before.map((each) => (each.supplier === supplier ? said : each));
    if (after.length > 10) return wrongLine(line, at, 'more than ten suppliers of one item');
    now.set(item.id, after);
    const isSame = JSON.stringify(before) === JSON.stringify(after);
    const { pars = [], weight = null, perCrate = null } = known ?? {};
    const body = { item: item.id, suppliers: after, pars, weight, perCrate };
    return {
      line: at + 2,
      name: `${itemName(item)}, ${cell(line, 'supplier')}`,
      verdict: isSame ? 'same' : was === undefined ? 'new' : 'changed',
      why: '',
      drafts: isSame ? [] : [draft('item.supply', newId(), null, body)],
    };
  });
}

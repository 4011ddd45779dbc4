/**
 * Items as a table of text, for CSV files (docs/formats.md, "Items"): out, and in again with what
 * will happen said line by line before it does. Out and in gives the same items.
 */
import type { Row } from '../books/tables';
import type { BodyOf } from '../daybook/kinds';
import { outsideId } from '../daybook/outside-id';
import { itemSet } from '../daybook/kinds/item-set';
import { categoryName, categoryNamed } from '../goods/categories';
import { hasRightCheckDigit, looksLikeGtin } from '../goods/gtin';
import { PLAIN_ITEM } from '../goods/plain-item';
import { guarded, unguarded } from './csv-cell';
import { readAmount, typedText } from '../money/amount-text';
import { costText, readCost } from '../money/cost-text';
import { readQuantity } from '../money/typed';
import { quantityText } from '../money/units';

type Item = Row<'items'>;
type Body = BodyOf<'item.set'>;

/** What items are told apart and named by, in this business. */
export interface ItemsContext {
  readonly business: string;
  readonly currency: string;
  readonly taxes: readonly Pick<Row<'taxes'>, 'id' | 'name'>[];
  readonly makers: readonly Pick<Row<'makers'>, 'id' | 'number'>[];
  readonly categories: readonly Row<'categories'>[];
}

export const ITEM_COLUMNS = [
  'id',
  'code',
  'name',
  'detail',
  'price',
  'other_price',
  'unit',
  'decimals',
  'category',
  'taxes',
  'barcodes',
  'cost',
  'low',
  'reorder',
  'stocked',
  'open_price',
  'by_time',
  'variant_of',
  'values',
  'choices',
  'extras',
  'maker',
  'colour',
  'description',
  'commodity_code',
  'returnable',
  'earns_points',
  'active',
] as const;
export type ItemColumn = (typeof ITEM_COLUMNS)[number];
export type ItemLine = Readonly<Record<ItemColumn, string>>;

const yesNo = (flag: boolean): string => (flag ? 'yes' : 'no');

/** Items as lines of text, items before their variants, in order of name. */
export function itemLines(items: readonly Item[], context: ItemsContext): readonly ItemLine[] {
  const order = ({ variantOf, name, detail, id }: Item): string =>
    [variantOf === null ? '0' : '1', name, detail, id].join('\n');
  return items
    .filter(({ setStamp }) => setStamp !== '')
    .map((item) => ({ item, key: order(item) }))
    .sort((a, b) => (a.key < b.key ? -1 : 1))
    .map(({ item }) => eachCell(lineOf(item, context), guarded));
}

function lineOf(item: Item, { currency, taxes, makers, categories }: ItemsContext): ItemLine {
  const amount = (minor: number): string => typedText(minor, currency);
  const taxName = (id: string): string => taxes.find((tax) => tax.id === id)?.name ?? id;
  const maker = makers.find(({ id }) => id === item.maker)?.number;
  return {
    id: item.id,
    code: item.code,
    name: item.name,
    detail: item.detail,
    price: amount(item.price),
    other_price: item.otherPrice === null ? '' : amount(item.otherPrice),
    unit: item.unit,
    decimals: String(item.decimals),
    category: categoryName(item.category, categories),
    taxes: joined(item.taxes.map(taxName)),
    barcodes: joined(item.barcodes),
    cost: costText(item.cost, currency),
    low: quantityText(item.low),
    reorder: joined(item.reorder.map(({ place, level }) => `${place}=${quantityText(level)}`)),
    stocked: yesNo(item.isStocked),
    open_price: yesNo(item.isOpenPrice),
    by_time: yesNo(item.isTimed),
    variant_of: item.variantOf ?? '',
    values: joined(item.values),
    choices: item.choices.length === 0 ? '' : JSON.stringify(item.choices),
    extras: item.extras.length === 0 ? '' : JSON.stringify(item.extras),
    maker: maker === undefined ? (item.maker ?? '') : String(maker),
    colour: item.colour,
    description: item.description,
    commodity_code: item.commodityCode,
    returnable: yesNo(item.isReturnable),
    earns_points: yesNo(item.earnsPoints),
    active: yesNo(item.isActive),
  };
}

/** What a line of a file will do, and why a wrong one will not. */
export interface PlannedLine {
  /** As a person counts: the heading is line 1. */
  readonly line: number;
  readonly name: string;
  readonly verdict: 'new' | 'changed' | 'same' | 'wrong';
  /** What is wrong, or which columns change. */
  readonly why: string;
  readonly body: Body | null;
}

export interface ReadItems {
  readonly newId: () => string;
  /** Lines as a CSV reader gives them, by heading; headings that are not known are passed over. */
  readonly lines: readonly Readonly<Record<string, string>>[];
  readonly items: readonly Item[];
  readonly context: ItemsContext;
  /** Called now and then with how many lines are done. */
  readonly onProgress?: (done: number) => void;
}

const PROGRESS_EVERY = 250;

/** Only `name` and `price` must be there; what a file does not have a column for stays as it is. */
export function readItems(command: ReadItems): readonly PlannedLine[] {
  const { items, lines, onProgress } = command;
  const known = new Known(items);
  return lines.map((line, at) => {
    if (at % PROGRESS_EVERY === 0) onProgress?.(at);
    return planned(command, eachCell(line, unguarded), at + 2, known);
  });
}

/** Spreadsheets take what begins like a formula for one (csv-cell.ts). */
const eachCell = <L extends Readonly<Record<string, string>>>(
  line: L,
  change: (text: string) => string,
): L =>
  Object.fromEntries(Object.entries(line).map(([column, text]) => [column, change(text)])) as L;

/** Items by what a line may call them, growing as lines are read. */
class Known {
  readonly #byId = new Map<string, Item | Body>();
  readonly #byCode = new Map<string, string>();
  readonly #byName = new Map<string, string>();
  readonly #seen = new Set<string>();

  constructor(items: readonly Item[]) {
    for (const item of items) if (item.setStamp !== '') this.add(item);
  }
  add(item: Item | Body): void {
    this.#byId.set(item.id, item);
    for (const code of [item.code, ...item.barcodes])
      if (code !== '') this.#byCode.set(code.toLowerCase(), item.id);
    this.#byName.set(nameKey(item.name, item.detail), item.id);
  }
  byId = (id: string): Item | Body | undefined => this.#byId.get(id);
  /** The item that a line speaks of: by id, else by own code, else by name and detail. */
  find({ id, code, name, detail }: Partial<Record<string, string>>): Item | Body | undefined {
    const found =
      (id === undefined || id === '' ? undefined : id) ??
      (code === undefined || code === '' ? undefined : this.#byCode.get(code.toLowerCase())) ??
      this.#byName.get(nameKey(name ?? '', detail ?? ''));
    return found === undefined ? undefined : this.#byId.get(found);
  }
  takenBy(code: string, id: string): string | null {
    const owner = this.#byCode.get(code.toLowerCase());
    return owner === undefined || owner === id ? null : (this.#byId.get(owner)?.name ?? '');
  }
  /** Whether a line before this one has spoken of the item. */
  isAgain(id: string): boolean {
    const isAgain = this.#seen.has(id);
    this.#seen.add(id);
    return isAgain;
  }
}

const nameKey = (name: string, detail: string): string =>
  `${name.trim().toLowerCase()}\n${detail.trim().toLowerCase()}`;

class WrongCell extends Error {}
const wrong = (column: string, why: string): never => {
  throw new WrongCell(`${column}: ${why}`);
};

function planned(
  { newId, context }: ReadItems,
  line: Readonly<Record<string, string>>,
  number: number,
  known: Known,
): PlannedLine {
  const name = (line['name'] ?? '').trim();
  const no = (why: string): PlannedLine => ({
    line: number,
    name,
    verdict: 'wrong',
    why,
    body: null,
  });
  try {
    const before = known.find(line);
    const id = before?.id ?? ((line['id'] ?? '').trim() || idFor(line, context, known, newId));
    const body = bodyOf(line, id, before, context, known);
    const read = itemSet.body.safeParse(body);
    if (!read.success) {
      const [issue] = read.error.issues;
      return no(`${issue?.path.map(String).join('.') ?? ''}: ${issue?.message ?? 'wrong'}`);
    }
    if (known.isAgain(id)) return no('a line before this one is of the same item');
    known.add(body);
    if (before === undefined) return { line: number, name, verdict: 'new', why: '', body };
    const changed = changesBetween(before, body);
    const verdict = changed.length === 0 ? 'same' : 'changed';
    return { line: number, name, verdict, why: changed.join(', '), body };
  } catch (error) {
    if (error instanceof WrongCell) return no(error.message);
    throw error;
  }
}

/** Made from the code, or the name: two devices that take the same file in have the same goods. */
function idFor(
  line: Readonly<Record<string, string>>,
  { business }: ItemsContext,
  known: Known,
  newId: () => string,
): string {
  const code = (line['code'] ?? '').trim();
  const name = code === '' ? nameKey(line['name'] ?? '', line['detail'] ?? '') : code;
  const id = outsideId(business, 'item', name);
  // It was called that once, and has another name by now.
  return known.byId(id) === undefined ? id : newId();
}

function bodyOf(
  line: Readonly<Record<string, string>>,
  id: string,
  before: Item | Body | undefined,
  { currency, taxes, makers, categories }: ItemsContext,
  known: Known,
): Body {
  const { setStamp: _stamp, ...was } = {
    setStamp: '',
    ...(before ?? { ...PLAIN_ITEM, id, name: '', price: 0 }),
  };
  const cell = (column: ItemColumn): string | undefined => line[column]?.trim();
  /** A column that is not there leaves what there was. */
  const use = <T>(column: ItemColumn, kept: T, read: (text: string) => T): T => {
    const text = cell(column);
    return text === undefined ? kept : read(text);
  };
  const amount =
    (column: ItemColumn) =>
    (text: string): number => {
      const read = readAmount(text, currency);
      if (read.ok) return read.amount;
      return /^0*[.,]?0+$/.test(text)
        ? 0
        : wrong(column, `“${text}” is not an amount such as 4.50`);
    };
  const quantity =
    (column: ItemColumn) =>
    (text: string): number => {
      const quantity = text === '' ? 0 : readQuantity(text);
      return quantity ?? wrong(column, `“${text}” is not a quantity such as 3 or 0.5`);
    };
  const flag =
    (column: ItemColumn) =>
    (text: string): boolean => {
      if (/^(?:yes|y|true|1)$/i.test(text)) return true;
      if (/^(?:no|n|false|0|)$/i.test(text)) return false;
      return wrong(column, `“${text}” is neither yes nor no`);
    };
  const list =
    (column: ItemColumn) =>
    (text: string): readonly string[] => {
      const parts = parted(text);
      return parts ?? wrong(column, 'parts are kept apart by |');
    };
  // What it holds is checked with the rest of the body.
  const json =
    (column: ItemColumn) =>
    (text: string): never[] => {
      try {
        return JSON.parse(text === '' ? '[]' : text) as never[];
      } catch {
        return wrong(column, 'this is not JSON');
      }
    };
  if ((cell('name') ?? was.name) === '') wrong('name', 'there is none');
  if (before === undefined && cell('price') === undefined) wrong('price', 'there is none');
  const barcodes = use('barcodes', was.barcodes, list('barcodes'));
  for (const each of barcodes)
    if (looksLikeGtin(each) && !hasRightCheckDigit(each))
      wrong('barcodes', `${each} has a wrong check digit`);
  const code = use('code', was.code, (text) => text);
  for (const each of [code, ...barcodes].filter((one) => one !== '')) {
    const by = known.takenBy(each, id);
    if (by !== null) wrong('code', `“${each}” is the code of ${by} already`);
  }
  return {
    ...was,
    id,
    code,
    barcodes,
    name: use('name', was.name, (text) => text),
    detail: use('detail', was.detail, (text) => text),
    description: use('description', was.description, (text) => text),
    category: use('category', was.category, (text) => categoryNamed(text, categories)),
    colour: use('colour', was.colour, (text) => (text === '' ? PLAIN_ITEM.colour : text)),
    unit: use('unit', was.unit, (text) => text),
    decimals: use('decimals', was.decimals, (text) => Number(text === '' ? '0' : text)),
    price: use('price', was.price, amount('price')),
    otherPrice: use('other_price', was.otherPrice, (text) =>
      text === '' ? null : amount('other_price')(text),
    ),
    isOpenPrice: use('open_price', was.isOpenPrice, flag('open_price')),
    isTimed: use('by_time', was.isTimed, flag('by_time')),
    taxes: use('taxes', was.taxes, (text) =>
      list('taxes')(text).map((called) => {
        const tax = taxes.find(({ id: own, name }) => name === called || own === called);
        return tax?.id ?? wrong('taxes', `there is no tax “${called}”`);
      }),
    ),
    cost: use('cost', was.cost, (text) => costIn(text, currency)),
    low: use('low', was.low, quantity('low')),
    reorder: use('reorder', was.reorder, (text) =>
      list('reorder')(text).map((part) => {
        const [place = '', level = ''] = part.split('=');
        return { place, level: quantity('reorder')(level) };
      }),
    ),
    isStocked: use('stocked', was.isStocked, flag('stocked')),
    variantOf: use('variant_of', was.variantOf, (text) => {
      if (text === '') return null;
      const parent = known.byId(text) ?? known.find({ code: text });
      return parent?.id ?? wrong('variant_of', `there is no item “${text}” before this line`);
    }),
    values: use('values', was.values, list('values')),
    choices: use('choices', was.choices, json('choices')),
    extras: use('extras', was.extras, json('extras')),
    maker: use('maker', was.maker, (text) => {
      if (text === '') return null;
      const maker = makers.find(({ id: own, number }) => String(number) === text || own === text);
      return maker?.id ?? wrong('maker', `there is no maker ${text}`);
    }),
    commodityCode: use('commodity_code', was.commodityCode, (text) => text),
    isReturnable: use('returnable', was.isReturnable, flag('returnable')),
    earnsPoints: use('earns_points', was.earnsPoints, flag('earns_points')),
    isActive: use('active', was.isActive, flag('active')),
  };
}

function costIn(text: string, currency: string): number | null {
  if (text === '') return null;
  return readCost(text, currency) ?? wrong('cost', `“${text}” is not an amount such as 1.8125`);
}

/** Names of what differs, as the columns call it. */
function changesBetween(before: Item | Body, after: Body): readonly string[] {
  const was = before as unknown as Readonly<Record<string, unknown>>;
  return Object.entries(after)
    .filter(([field, value]) => JSON.stringify(was[field]) !== JSON.stringify(value))
    .map(([field]) => COLUMN_OF[field] ?? field);
}

const COLUMN_OF: Readonly<Record<string, string>> = {
  otherPrice: 'other price',
  isOpenPrice: 'open price',
  isTimed: 'by time',
  isStocked: 'stocked',
  variantOf: 'variant of',
  commodityCode: 'commodity code',
  isReturnable: 'returnable',
  earnsPoints: 'earns points',
  isActive: 'active',
};

/** Parts joined by |, each kept whole by a backslash before what would part it. */
const joined = (parts: readonly string[]): string =>
  parts.map((part) => part.replace(/[\\|]/g, '\\$&')).join('|');

function parted(text: string): readonly string[] | null {
  if (text === '') return [];
  const parts: string[] = [];
  let part = '';
  for (let at = 0; at < text.length; at += 1) {
    const letter = text.charAt(at);
    if (letter === '|') {
      parts.push(part);
      part = '';
    } else if (letter !== '\\') part += letter;
    else if (at + 1 < text.length) part += text.charAt((at += 1));
    else return null;
  }
  return [...parts, part].map((each) => each.trim());
}

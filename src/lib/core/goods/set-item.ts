/** Setting an item up, with its variants: a command that takes what was typed. */
import type { Choice, ExtraGroup, Reorder, Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { readAmount } from '../money/amount-text';
import { itemName } from './item-name';
import { readCost } from '../money/cost-text';
import { readQuantity } from '../money/typed';
import { categoryNamed, setCategory } from './categories';
import { checkDigit, hasRightCheckDigit, looksLikeGtin } from './gtin';
import { PLAIN_ITEM } from './plain-item';
import { combinations } from './variants';

type Item = Row<'items'>;

/** A cell of the matrix, as typed; one that is not sold keeps what it had. */
export interface TypedVariant {
  readonly values: readonly string[];
  readonly code: string;
  readonly barcodes: string;
  readonly price: string;
  readonly isSold: boolean;
}

export interface TypedExtraGroup {
  readonly name: string;
  readonly least: string;
  readonly most: string;
  readonly options: readonly {
    readonly name: string;
    readonly price: string;
    readonly isDefault: boolean;
  }[];
}

/** Everything about an item as the form holds it. */
export interface TypedItem {
  readonly name: string;
  readonly detail: string;
  readonly description: string;
  readonly code: string;
  /** Apart by blanks or commas. */
  readonly barcodes: string;
  /** The name of it. */
  readonly category: string;
  readonly colour: string;
  readonly unit: string;
  readonly decimals: number;
  readonly price: string;
  /** Empty follows by the uplift. */
  readonly otherPrice: string;
  readonly isOpenPrice: boolean;
  readonly isTimed: boolean;
  readonly taxes: readonly string[];
  /** An amount with up to three more decimals than the currency has; empty is not known. */
  readonly cost: string;
  readonly low: string;
  /** When to buy again at the base; empty is never. */
  readonly reorder: string;
  readonly isStocked: boolean;
  readonly choices: readonly { readonly name: string; readonly values: string }[];
  readonly variants: readonly TypedVariant[];
  readonly extras: readonly TypedExtraGroup[];
  readonly maker: string | null;
  readonly commodityCode: string;
  readonly isReturnable: boolean;
  readonly earnsPoints: boolean;
  readonly isActive: boolean;
}

export interface SetItem {
  readonly newId: () => string;
  /** Null for something new. */
  readonly id: string | null;
  readonly typed: TypedItem;
  readonly currency: string;
  readonly items: readonly Item[];
  readonly categories: readonly Row<'categories'>[];
}

/** What is wrong, with the field it is in; `at` is the place within a list. */
export type ItemRefusal = { readonly field: string; readonly at?: number } & (
  | { readonly code: 'item/empty' }
  | { readonly code: 'item/not-an-amount'; readonly typed: string }
  | { readonly code: 'item/not-a-quantity'; readonly typed: string }
  | { readonly code: 'item/code-taken'; readonly typed: string; readonly by: string }
  | { readonly code: 'item/check-digit'; readonly typed: string; readonly right: string }
  | { readonly code: 'item/too-long'; readonly most: number }
  | { readonly code: 'item/too-many-variants'; readonly count: number }
  | { readonly code: 'item/group-counts' }
  | { readonly code: 'item/twice'; readonly typed: string }
);

export type ItemOutcome =
  | { readonly ok: true; readonly id: string; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: ItemRefusal };

const MOST_VARIANTS = 200;

class Refused extends Error {
  constructor(readonly refusal: ItemRefusal) {
    super(refusal.code);
  }
}
const refuse = (refusal: ItemRefusal): never => {
  throw new Refused(refusal);
};

/** Drafts for the item and for each of its variants; variants that are no more are put away. */
export function setItem(command: SetItem): ItemOutcome {
  try {
    return drafted(command);
  } catch (error) {
    if (error instanceof Refused) return { ok: false, refusal: error.refusal };
    throw error;
  }
}

function drafted({ newId, id: known, typed, currency, items, categories }: SetItem): ItemOutcome {
  const id = known ?? newId();
  const before = items.filter((each) => each.variantOf === id);
  const others = items.filter((each) => each.id !== id && each.variantOf !== id && each.isActive);
  const taken = codesOf(others);
  const choices = choicesIn(typed);
  const named = categoryOf(typed, categories, newId);
  const typedOwn = bodyIn(id, { ...typed, category: named.category }, choices, currency, taken);
  const stood = items.find((each) => each.id === id)?.reorder ?? [];
  const own = { ...typedOwn, reorder: withBase(stood, typedOwn.reorder) };
  /** Said anew in the form: then it is said of every variant. */
  const isNewLevel = baseLevel(stood) !== baseLevel(own.reorder);
  const drafts = [...named.drafts, draft('item.set', newId(), null, own)];
  const kept = new Set<string>();
  const cells = combinations(choices);
  if (choices.length > 0 && cells.length > MOST_VARIANTS)
    refuse({ code: 'item/too-many-variants', field: 'choices', count: cells.length });
  for (const values of choices.length === 0 ? [] : cells) {
    const at = typed.variants.findIndex((each) => isSame(each.values, values));
    const was = before.find((each) => isSame(each.values, values));
    const cell = typed.variants[at];
    if (was === undefined && cell?.isSold === false) continue;
    const made = variantIn(was?.id ?? newId(), own, values, cell, at, currency, taken);
    const levels = was?.reorder ?? own.reorder;
    const body = { ...made, reorder: isNewLevel ? withBase(levels, own.reorder) : levels };
    kept.add(body.id);
    drafts.push(draft('item.set', newId(), null, body));
  }
  for (const gone of before.filter((each) => each.isActive && !kept.has(each.id))) {
    const { setStamp: _stamp, ...body } = gone;
    drafts.push(draft('item.set', newId(), null, { ...body, isActive: false }));
  }
  return { ok: true, id, drafts };
}

type Body = BodyOf<'item.set'>;

/** The category that was typed; a name that nothing has yet becomes one there and then. */
function categoryOf(
  typed: TypedItem,
  categories: readonly Row<'categories'>[],
  newId: () => string,
): { readonly category: string; readonly drafts: readonly Draft[] } {
  const category = categoryNamed(textIn(typed.category, 'category', 80), categories);
  const isKnown = category === '' || categories.some(({ id }) => id === category);
  if (isKnown) return { category, drafts: [] };
  const made = setCategory({
    newId,
    id: null,
    name: category,
    isActive: true,
    categories,
    items: [],
  });
  return made.ok ? { category: made.id, drafts: made.drafts } : { category, drafts: [] };
}

function bodyIn(
  id: string,
  typed: TypedItem,
  choices: readonly Choice[],
  currency: string,
  taken: Map<string, string>,
): Body {
  const name = textIn(typed.name, 'name', 80);
  if (name === '') refuse({ code: 'item/empty', field: 'name' });
  const barcodes = barcodesIn(typed.barcodes, 'barcodes');
  const code = textIn(typed.code, 'code', 40);
  claim(taken, [code, ...barcodes], name, 'code');
  const isFree = typed.isOpenPrice && typed.price.trim() === '';
  return {
    ...PLAIN_ITEM,
    id,
    name,
    detail: textIn(typed.detail, 'detail', 80),
    description: textIn(typed.description, 'description', 500),
    code,
    barcodes,
    category: textIn(typed.category, 'category', 80),
    colour: typed.colour,
    unit: typed.isTimed ? 'h' : textIn(typed.unit, 'unit', 12),
    decimals: typed.isTimed ? 3 : typed.unit.trim() === '' ? 0 : typed.decimals,
    price: isFree ? 0 : amountIn(typed.price, 'price', currency),
    otherPrice:
      typed.otherPrice.trim() === '' ? null : amountIn(typed.otherPrice, 'otherPrice', currency),
    isOpenPrice: typed.isOpenPrice,
    isTimed: typed.isTimed,
    taxes: typed.taxes,
    cost: costIn(typed.cost, currency),
    low: quantityIn(typed.low, 'low'),
    reorder: reorderIn(typed.reorder),
    isStocked: typed.isStocked && !typed.isTimed,
    choices,
    extras: typed.extras.map((group, at) => groupIn(group, at, currency)),
    maker: typed.maker,
    commodityCode: textIn(typed.commodityCode, 'commodityCode', 20),
    isReturnable: typed.isReturnable,
    earnsPoints: typed.earnsPoints,
    isActive: typed.isActive,
  };
}

/** A variant is what its item is, but for code, price and its values. */
function variantIn(
  id: string,
  own: Body,
  values: readonly string[],
  cell: TypedVariant | undefined,
  at: number,
  currency: string,
  taken: Map<string, string>,
): Body {
  const code = cell === undefined ? '' : textIn(cell.code, 'variants', 40, at);
  const barcodes = cell === undefined ? [] : barcodesIn(cell.barcodes, 'variants', at);
  claim(taken, [code, ...barcodes], `${own.name}, ${values.join(', ')}`, 'variants', at);
  const price = cell?.price.trim() ?? '';
  return {
    ...own,
    id,
    detail: values.join(', ').slice(0, 80),
    code,
    barcodes,
    price: price === '' ? own.price : amountIn(price, 'variants', currency, at),
    otherPrice: price === '' ? own.otherPrice : null,
    variantOf: own.id,
    values,
    choices: [],
    extras: [],
    isActive: own.isActive && (cell?.isSold ?? true),
  };
}

function choicesIn({ choices }: TypedItem): readonly Choice[] {
  const read = choices.map(({ name, values }, at): Choice => {
    const list = values
      .split(',')
      .map((value) => textIn(value, 'choices', 80, at))
      .filter((value) => value !== '');
    const twice = list.find((value, i) => list.indexOf(value) !== i);
    if (twice !== undefined) refuse({ code: 'item/twice', field: 'choices', at, typed: twice });
    const called = textIn(name, 'choices', 80, at);
    if ((called === '') !== (list.length === 0))
      refuse({ code: 'item/empty', field: 'choices', at });
    return { name: called, values: list };
  });
  return read.filter(({ values }) => values.length > 0);
}

function groupIn(group: TypedExtraGroup, at: number, currency: string): ExtraGroup {
  const name = textIn(group.name, 'extras', 80, at);
  if (name === '') refuse({ code: 'item/empty', field: 'extras', at });
  const options = group.options.map((option) => {
    const called = textIn(option.name, 'extras', 80, at);
    if (called === '') refuse({ code: 'item/empty', field: 'extras', at });
    const price = option.price.trim() === '' ? 0 : amountIn(option.price, 'extras', currency, at);
    return { name: called, price, isDefault: option.isDefault };
  });
  const [least, most] = [Number(group.least || '0'), Number(group.most || String(options.length))];
  const isRight =
    Number.isInteger(least) &&
    Number.isInteger(most) &&
    least >= 0 &&
    most >= Math.max(1, least) &&
    most <= options.length &&
    options.filter(({ isDefault }) => isDefault).length <= most;
  if (!isRight) refuse({ code: 'item/group-counts', field: 'extras', at });
  return { name, least, most, options };
}

function textIn(text: string, field: string, most: number, at?: number): string {
  const trimmed = text.trim();
  if (trimmed.length > most)
    refuse({ code: 'item/too-long', field, most, ...(at === undefined ? {} : { at }) });
  return trimmed;
}

function amountIn(text: string, field: string, currency: string, at?: number): number {
  const read = readAmount(text, currency);
  if (read.ok) return read.amount;
  if (/^\D*0*[.,]?0+\D*$/.test(text)) return 0;
  return refuse({
    code: 'item/not-an-amount',
    field,
    typed: text,
    ...(at === undefined ? {} : { at }),
  });
}

function quantityIn(text: string, field: string): number {
  const quantity = text.trim() === '' ? 0 : readQuantity(text);
  if (quantity !== null && quantity >= 0) return quantity;
  return refuse({ code: 'item/not-a-quantity', field, typed: text });
}

function costIn(text: string, currency: string): number | null {
  if (text.trim() === '') return null;
  return (
    readCost(text, currency) ?? refuse({ code: 'item/not-an-amount', field: 'cost', typed: text })
  );
}

/** The base's level as it was typed; those of other places, which are set up elsewhere, as they stood. */
const withBase = (stood: readonly Reorder[], typed: readonly Reorder[]): Reorder[] => [
  ...typed.filter(({ place }) => place === 'base'),
  ...stood.filter(({ place }) => place !== 'base'),
];
const baseLevel = (levels: readonly Reorder[]): number | undefined =>
  levels.find(({ place }) => place === 'base')?.level;

const reorderIn = (text: string): readonly Reorder[] =>
  text.trim() === '' ? [] : [{ place: 'base', level: quantityIn(text, 'reorder') }];

function barcodesIn(text: string, field: string, at?: number): readonly string[] {
  const codes = text.split(/[\s,;]+/).filter((code) => code !== '');
  for (const code of codes) {
    if (code.length > 40) refuse({ code: 'item/too-long', field, most: 40 });
    if (looksLikeGtin(code) && !hasRightCheckDigit(code)) {
      const right = String(checkDigit(code.slice(0, -1)));
      refuse({
        code: 'item/check-digit',
        field,
        typed: code,
        right,
        ...(at === undefined ? {} : { at }),
      });
    }
  }
  return codes.filter((code, i) => codes.indexOf(code) === i);
}

/** Codes and barcodes by what has them, in lower case. */
function codesOf(items: readonly Item[]): Map<string, string> {
  const taken = new Map<string, string>();
  for (const { code, barcodes, name, detail } of items) {
    for (const each of [code, ...barcodes])
      if (each !== '') taken.set(each.toLowerCase(), itemName({ name, detail }));
  }
  return taken;
}

/** Codes are told apart by nobody if two items have the same. */
function claim(
  taken: Map<string, string>,
  codes: readonly string[],
  name: string,
  field: string,
  at?: number,
): void {
  for (const code of codes.filter((each) => each !== '')) {
    const by = taken.get(code.toLowerCase());
    if (by !== undefined)
      refuse({
        code: 'item/code-taken',
        field,
        typed: code,
        by,
        ...(at === undefined ? {} : { at }),
      });
    taken.set(code.toLowerCase(), name);
  }
}

const isSame = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((value, at) => value === b[at]);

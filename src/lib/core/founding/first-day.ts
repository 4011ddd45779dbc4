/** The first steps of a business that has nothing yet: goods, and taking them to its first event. */
import { BASE, SUPPLIERS, type Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { PLAIN_ITEM } from '../goods/plain-item';
import { readAmount, type AmountRefusal } from '../money/amount-text';

export type FirstDayRefusal =
  | AmountRefusal
  | { readonly code: 'goods/no-name' }
  | { readonly code: 'goods/count-wrong'; readonly typed: string };

export type FirstDayOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: FirstDayRefusal };

const refuse = (refusal: FirstDayRefusal): FirstDayOutcome => ({ ok: false, refusal });

export interface AddGoods {
  readonly newId: () => string;
  readonly name: string;
  /** As typed, in the business's currency. */
  readonly price: string;
  /** How many there are at the base, as typed; empty is none. */
  readonly count: string;
  readonly currency: string;
  /** The tax it carries, or null. */
  readonly tax: string | null;
  readonly items: readonly Row<'items'>[];
  /** The first table there is, if any: new goods go to its end. */
  readonly table: Row<'tables'> | undefined;
}

const COLOURS = ['#1c684c', '#a8452c', '#2a5a80', '#7a4a8c', '#8a5a00', '#3f6b2a'];

/** One thing that is sold by the piece, laid out on the first table, with the stock there is. */
export function addGoods(command: AddGoods): FirstDayOutcome {
  const { newId, currency, tax, items, table } = command;
  const name = command.name.trim().slice(0, 80);
  if (name === '') return refuse({ code: 'goods/no-name' });
  const price = readAmount(command.price, currency);
  if (!price.ok) return refuse(price.refusal);
  const typed = command.count.trim();
  if (!/^\d{0,5}$/.test(typed)) return refuse({ code: 'goods/count-wrong', typed });
  const item = newId();
  const count = Number(typed) * 1000;
  const drafts = [
    draft('item.set', newId(), null, {
      ...PLAIN_ITEM,
      id: item,
      name,
      colour: COLOURS[items.length % COLOURS.length]!,
      price: price.amount,
      taxes: tax === null ? [] : [tax],
    }),
    draft('table.set', newId(), null, {
      id: table?.id ?? newId(),
      name: table?.name ?? 'Table',
      sort: table?.sort ?? 0,
      goods: [...(table?.goods ?? []), { item, width: 1 }],
      event: table?.event ?? null,
      size: 'middle',
      isActive: true,
    }),
  ];
  if (count > 0) {
    const goods = [{ item, quantity: count }];
    const move = { reason: 'delivered', from: SUPPLIERS, to: BASE, goods, note: '' } as const;
    drafts.push(draft('stock.moved', newId(), null, move));
  }
  return { ok: true, drafts };
}

/** As many as one movement carries: an entry has a largest size. */
const MOST_GOODS = 500;

/** Takes everything that is at the base to the event; once it is packed, there is nothing to do. */
export function loadAll(
  newId: () => string,
  event: string,
  stage: string,
  stock: readonly Row<'stock'>[],
): readonly Draft[] {
  if (stage !== 'planned') return [];
  const goods = stock
    .filter(({ place, quantity }) => place === BASE && quantity > 0)
    .map(({ item, quantity }) => ({ item, quantity }));
  const packed = draft('event.stage', newId(), event, { event, stage: 'packed' });
  if (goods.length === 0) return [packed];
  const moves: Draft[] = [];
  for (let at = 0; at < goods.length; at += MOST_GOODS) {
    const some = goods.slice(at, at + MOST_GOODS);
    const move = { reason: 'loaded', from: BASE, to: event, goods: some, note: '' } as const;
    moves.push(draft('stock.moved', newId(), event, move));
  }
  return [...moves, packed];
}

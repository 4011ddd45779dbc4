/** Making a list of goods, changing it, approving and ending it: commands. */
import { SUPPLIERS } from '../books/names';
import { isMail } from '../customer/mail-address';
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { readQuantity } from '../money/typed';
import { isOpen, nextNumber, stateOf, type LineNow } from './list-state';

type List = Row<'lists'>;

export type ListRefusal =
  | { readonly code: 'list/same-place' }
  | { readonly code: 'list/no-place' }
  | { readonly code: 'list/no-supplier' }
  | { readonly code: 'list/no-event' }
  | { readonly code: 'list/day-wrong' }
  | { readonly code: 'list/nothing-on-it' }
  | { readonly code: 'list/ended' }
  | { readonly code: 'list/not-approved' }
  | { readonly code: 'list/no-reason' }
  | { readonly code: 'list/no-address' }
  | { readonly code: 'list/under-way' }
  | { readonly code: 'list/nothing-packed' }
  | { readonly code: 'list/nothing-chosen' }
  | { readonly code: 'list/quantity-wrong'; readonly typed: string }
  | { readonly code: 'list/decimals'; readonly typed: string; readonly decimals: number }
  | {
      readonly code: 'list/more-than-wanted';
      readonly item: string;
      readonly wanted: number;
      readonly found: number;
    };
export type ListOutcome =
  | { readonly ok: true; readonly id: string; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: ListRefusal };
const refuse = (refusal: ListRefusal): ListOutcome => ({ ok: false, refusal });

export interface TypedList {
  readonly use: List['use'];
  readonly name: string;
  readonly from: string;
  readonly to: string;
  readonly supplier: string;
  readonly van: string;
  /** ISO date, or empty. */
  readonly day: string;
  readonly note: string;
}

export interface SetList {
  readonly newId: () => string;
  /** Null for a new one. */
  readonly known: List | null;
  readonly typed: TypedList;
  /** The event that it is for, or null. */
  readonly event: string | null;
  readonly deviceNumber: number;
  /** All there are, for its number. */
  readonly lists: readonly List[];
}

/** A new list, which is a draft, or the head of one that is there. */
export function setList(command: SetList): ListOutcome {
  const { newId, known, typed, event, deviceNumber, lists } = command;
  const { use } = typed;
  const from = use === 'order' && typed.supplier !== '' ? SUPPLIERS : typed.from;
  const to = use === 'back' ? SUPPLIERS : typed.to;
  const isSuppliers = from === SUPPLIERS || to === SUPPLIERS;
  if ((use === 'load' || use === 'unload') && event === null)
    return refuse({ code: 'list/no-event' });
  if (isSuppliers && typed.supplier === '') return refuse({ code: 'list/no-supplier' });
  if (from === '' || to === '') return refuse({ code: 'list/no-place' });
  if (from === to) return refuse({ code: 'list/same-place' });
  if (typed.day !== '' && Number.isNaN(Date.parse(typed.day)))
    return refuse({ code: 'list/day-wrong' });
  const id = known?.id ?? newId();
  const body: BodyOf<'list.set'> = {
    list: id,
    use,
    deviceNumber: known?.deviceNumber ?? deviceNumber,
    number:
      known?.number ??
      nextNumber(
        deviceNumber,
        lists.filter((each) => each.use === use),
      ),
    name: typed.name.trim().slice(0, 80) || USE_NAMES[use],
    from,
    to,
    supplier: isSuppliers ? typed.supplier : null,
    van: typed.van === '' ? null : typed.van,
    day: typed.day === '' ? null : typed.day,
    note: typed.note.slice(0, 500),
  };
  return { ok: true, id, drafts: [draft('list.set', newId(), event, body)] };
}

const USE_NAMES: Readonly<Record<List['use'], string>> = {
  load: 'Load list',
  unload: 'Unload list',
  transfer: 'Transfer',
  order: 'Order',
  back: 'Back to a supplier',
};

export interface Wanted {
  readonly item: string;
  /** Thousandths. */
  readonly wanted: number;
  readonly price?: number | null;
  readonly note?: string;
}

/** Lines as they are to be; what is the same already is not written again. Nothing wanted takes a line off. */
export function setLines(
  newId: () => string,
  list: Pick<List, 'id' | 'event' | 'stage'>,
  lines: readonly LineNow[],
  wanted: readonly Wanted[],
): ListOutcome {
  if (!isOpen(stateOf(list, lines))) return refuse({ code: 'list/ended' });
  const known = new Map(lines.map((line) => [line.item, line]));
  const drafts = wanted.flatMap((each) => {
    const line = known.get(each.item);
    const price = each.price === undefined ? (line?.price ?? null) : each.price;
    const note = (each.note ?? line?.note ?? '').slice(0, 200);
    const isSame =
      line === undefined
        ? each.wanted === 0
        : line.wanted === each.wanted && line.price === price && line.note === note;
    if (isSame) return [];
    const body = { list: list.id, item: each.item, wanted: each.wanted, price, note };
    return [draft('list.line', newId(), list.event, body)];
  });
  return { ok: true, id: list.id, drafts };
}

type Typed =
  | { readonly ok: true; readonly quantity: number }
  | { readonly ok: false; readonly refusal: ListRefusal };

/** How much of an item somebody typed: from nothing up, with no more decimals than the item has. */
export function typedQuantity(typed: string, { decimals }: Pick<Row<'items'>, 'decimals'>): Typed {
  const quantity = readQuantity(typed);
  if (quantity === null || quantity < 0 || quantity > 999_999_999)
    return { ok: false, refusal: { code: 'list/quantity-wrong', typed } };
  if (quantity % 10 ** (3 - decimals) !== 0)
    return { ok: false, refusal: { code: 'list/decimals', typed, decimals } };
  return { ok: true, quantity };
}

/** Approves it: from then on it keeps goods back, and what it orders counts as on order. */
export function approveList(
  newId: () => string,
  list: List,
  lines: readonly LineNow[],
): ListOutcome {
  const state = stateOf(list, lines);
  if (!isOpen(state)) return refuse({ code: 'list/ended' });
  // Tapped twice, or on two devices: it is approved.
  if (state !== 'draft') return { ok: true, id: list.id, drafts: [] };
  if (!lines.some(({ wanted }) => wanted > 0)) return refuse({ code: 'list/nothing-on-it' });
  return stage(newId, list, 'approved', '');
}

/**
 * Has an approved order mailed to its supplier.
 * @param to The supplier's address, as it is known now.
 * @param before How often that had been asked for, as the screen said when it was asked for again.
 */
export function mailList(
  newId: () => string,
  list: List,
  lines: readonly LineNow[],
  { to, before }: { readonly to: string; readonly before: number },
): ListOutcome {
  if (list.use !== 'order' || list.supplier === null) return refuse({ code: 'list/no-supplier' });
  const state = stateOf(list, lines);
  if (state === 'draft') return refuse({ code: 'list/not-approved' });
  if (!isOpen(state)) return refuse({ code: 'list/ended' });
  if (!isMail(to)) return refuse({ code: 'list/no-address' });
  const body = { list: list.id, before };
  return { ok: true, id: list.id, drafts: [draft('list.mailed', newId(), list.event, body)] };
}

/** Back to a draft, as long as nothing has been done for it. */
export function redraftList(
  newId: () => string,
  list: List,
  lines: readonly LineNow[],
): ListOutcome {
  const state = stateOf(list, lines);
  if (state === 'draft') return { ok: true, id: list.id, drafts: [] };
  if (state !== 'approved') return refuse({ code: 'list/under-way' });
  return stage(newId, list, 'draft', '');
}

/**
 * Ends it: closed short where less came than was wanted, with a reason, or called off where nothing was done.
 * Goods that are on their way have to arrive, or to be gone, first.
 */
export function endList(
  newId: () => string,
  list: List,
  lines: readonly LineNow[],
  reason: string,
): ListOutcome {
  const state = stateOf(list, lines);
  if (!isOpen(state)) return refuse({ code: 'list/ended' });
  if (lines.some(({ sent, received }) => sent > received))
    return refuse({ code: 'list/under-way' });
  const why = reason.trim().slice(0, 200);
  const isShort = lines.some(({ wanted, received }) => received < wanted);
  if (isShort && state !== 'draft' && why === '') return refuse({ code: 'list/no-reason' });
  return stage(newId, list, state === 'in part' ? 'done' : 'off', why);
}

const stage = (
  newId: () => string,
  list: List,
  to: BodyOf<'list.stage'>['to'],
  why: string,
): ListOutcome => ({
  ok: true,
  id: list.id,
  drafts: [draft('list.stage', newId(), list.event, { list: list.id, to, why })],
});

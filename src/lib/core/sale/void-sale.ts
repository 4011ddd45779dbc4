/** Voiding a sale: as if it had never been, in the same shift. */
import { BASE, type Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { overspends, type Balances } from '../held/overspends';
import { partPostings } from '../journal/payment';
import { figuresOfRows, salePostings } from '../journal/sale';
import { EXCHANGE } from '../payment/methods';
import { takeBack } from '../journal/take-back';

export interface VoidSale {
  readonly newId: () => string;
  readonly sale: Row<'sales'>;
  readonly lines: readonly Row<'saleLines'>[];
  readonly payments: readonly Row<'payments'>[];
  readonly reason: string;
  /** Sales that have been voided. */
  readonly voids: readonly Pick<Row<'voids'>, 'sale'>[];
  readonly returns: readonly Pick<Row<'returns'>, 'sale'>[];
  /** That trades now. */
  readonly event: string | null;
  /** What stands on the accounts that it paid in on. */
  readonly balances?: Balances | undefined;
  /** Drawers that are open: cash goes back into the one it came from. */
  readonly openDrawers: readonly string[];
}

/** Why a sale stands. */
export type VoidRefusal =
  | { readonly code: 'void/no-reason' }
  | { readonly code: 'void/already' }
  /** Goods of it came back: what is left can come back as well. */
  | { readonly code: 'void/returned' }
  /** Goods that came back paid for some of it: it can come back as well. */
  | { readonly code: 'void/exchanged' }
  /** Another event, or its cash has been counted: it can only come back as a return. */
  | { readonly code: 'void/shift-over' }
  /** What it had paid in on a voucher or as credit has been spent. */
  | { readonly code: 'void/spent' };

export type VoidOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: VoidRefusal };
type Body = BodyOf<'sale.voided'>;

/** Whether a drawer that its cash went into has been counted, or it is, or was paid, at another event than today's. */
export const isShiftOver = (
  { sale, payments, event }: Pick<VoidSale, 'sale' | 'payments' | 'event'>,
  openDrawers: readonly string[],
): boolean =>
  sale.event !== event ||
  payments.some(
    ({ drawer, event: at }) => at !== event || (drawer !== null && !openDrawers.includes(drawer)),
  );

/** Takes off whatever the sale brought, figure by figure. Minor units. */
export function voidSale(command: VoidSale): VoidOutcome {
  const { newId, sale, lines, payments, voids, openDrawers } = command;
  const reason = command.reason.trim().slice(0, 200);
  if (voids.some((each) => each.sale === sale.id)) return refuse('void/already');
  if (command.returns.some((each) => each.sale === sale.id)) return refuse('void/returned');
  if (payments.some(({ way }) => way === EXCHANGE)) return refuse('void/exchanged');
  if (isShiftOver(command, openDrawers)) return refuse('void/shift-over');
  if (reason === '') return refuse('void/no-reason');
  const body = voidBody({ sale, lines, payments, reason });
  const moved = body.takes.flatMap(({ postings }) => postings);
  const { balances } = command;
  if (balances !== undefined && overspends(moved, balances) !== null) return refuse('void/spent');
  return { ok: true, drafts: [draft('sale.voided', newId(), sale.event, body)] };
}

/** All that the sale brought, to be taken off again. */
export function voidBody({
  sale,
  lines,
  payments,
  reason,
}: Pick<VoidSale, 'sale' | 'lines' | 'payments' | 'reason'>): Body {
  // Rows from before there was a word for the place name the event.
  const place = sale.place === '' ? (sale.event ?? BASE) : sale.place;
  return {
    sale: sale.id,
    number: sale.number,
    reason,
    day: sale.day,
    hour: sale.hour,
    takes: [
      takeBack(sale.id, salePostings(figuresOfRows({ ...sale, place }, lines))),
      ...payments.map((part) => takeBack(part.id, partPostings(part))),
    ],
    cards: payments.filter(({ card }) => card !== null).map(({ id }) => id),
  };
}

/** What a void had taken off, to be put on again. */
export function undoBody({
  void: of,
  ...what
}: Parameters<typeof voidBody>[0] & { readonly void: string }): BodyOf<'void.undone'> {
  const taken = voidBody(what);
  const takes = taken.takes.map(({ of: whose, postings }) => takeBack(whose, postings));
  return { ...taken, takes, void: of };
}

const refuse = (code: VoidRefusal['code']): VoidOutcome => ({ ok: false, refusal: { code } });

/** Voiding a sale: as if it had never been, in the same shift. */
import { BASE, SERVICE, UNLISTED, UPLIFT, type Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { sum } from '../money/units';
import { paidWith, takingsOfPart } from '../payment/part-sums';
import { costOf } from './cost';

export interface VoidSale {
  readonly newId: () => string;
  readonly sale: Row<'sales'>;
  readonly lines: readonly Row<'saleLines'>[];
  readonly payments: readonly Row<'payments'>[];
  readonly reason: string;
  /** Sales that have been voided. */
  readonly voids: readonly Pick<Row<'voids'>, 'sale'>[];
  /** That trades now. */
  readonly event: string | null;
  /** Drawers that are open: cash goes back into the one it came from. */
  readonly openDrawers: readonly string[];
}

/** Why a sale stands. */
export type VoidRefusal =
  | { readonly code: 'void/no-reason' }
  | { readonly code: 'void/already' }
  /** Another event, or its cash has been counted: it can only come back as a return. */
  | { readonly code: 'void/shift-over' };

export type VoidOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[]; readonly parts: VoidParts }
  | { readonly ok: false; readonly refusal: VoidRefusal };
type Body = BodyOf<'sale.voided'>;
export type VoidParts = Body['parts'];

/** Whether a drawer that its cash went into has been counted, or its event is not today's. */
export const isShiftOver = (
  { sale, payments, event }: Pick<VoidSale, 'sale' | 'payments' | 'event'>,
  openDrawers: readonly string[],
): boolean =>
  sale.event !== event ||
  payments.some(({ drawer }) => drawer !== null && !openDrawers.includes(drawer));

/** Takes off whatever the sale brought, figure by figure. Minor units. */
export function voidSale(command: VoidSale): VoidOutcome {
  const { newId, sale, lines, payments, voids, openDrawers } = command;
  const reason = command.reason.trim().slice(0, 200);
  if (voids.some((each) => each.sale === sale.id)) return refuse('void/already');
  if (isShiftOver(command, openDrawers)) return refuse('void/shift-over');
  if (reason === '') return refuse('void/no-reason');
  const body = voidBody({ sale, lines, payments, reason });
  return { ok: true, drafts: [draft('sale.voided', newId(), sale.event, body)], parts: body.parts };
}

/** All that the sale brought, to be taken off again. Minor units. */
export function voidBody({
  sale,
  lines,
  payments,
  reason,
}: Pick<VoidSale, 'sale' | 'lines' | 'payments' | 'reason'>): Body {
  const parts = payments.map((part) => ({
    payment: part.id,
    way: part.way,
    drawer: part.drawer,
    seller: part.by,
    takings: takingsOfPart({ ...part, side: part.side === 'card' ? 'card' : 'cash' }),
    surcharge: part.surcharge,
    tip: part.tip,
    amount: paidWith(part),
    isCard: part.card !== null,
  }));
  return {
    sale: sale.id,
    number: sale.number,
    reason,
    // Rows from before there was a word for it name the event.
    place: sale.place === '' ? (sale.event ?? BASE) : sale.place,
    day: sale.day,
    hour: sale.hour,
    units: sale.units,
    takings: sale.total + sale.uplift,
    tax: sale.tax,
    cost: sum(lines.map((line) => costOf(line) ?? 0)),
    items: [
      ...lines.map((line) => ({
        item: line.item ?? UNLISTED,
        quantity: line.quantity,
        takings: line.total,
        tax: sum(Object.values(line.tax)),
        isStocked: line.item !== null && line.isStocked,
      })),
      ...beside(SERVICE, sale.service, sale.serviceTax),
      ...beside(
        UPLIFT,
        sale.uplift,
        sum(Object.values(sale.upliftTaxes).map(({ amount }) => amount)),
      ),
    ],
    taxes: sale.taxes.map(({ id, rate, base, amount }) => {
      const above = sale.upliftTaxes[id] ?? { base: 0, amount: 0 };
      return { tax: id, rate, base: base + above.base, amount: amount + above.amount };
    }),
    parts,
  };
}

const beside = (item: string, takings: number, tax: number): Body['items'] =>
  takings === 0 && tax === 0 ? [] : [{ item, quantity: 0, takings, tax, isStocked: false }];

const refuse = (code: VoidRefusal['code']): VoidOutcome => ({ ok: false, refusal: { code } });

/** Ringing up: an open slip and what was handed over become entries. */
import type { TaxSwap } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { localTime } from '../event/local-time';
import { sum } from '../money/units';
import { pay, type WayRules } from '../payment/pay';
import type { QuotedLine, SideQuote, SlipTax } from '../pricing/slip';
import { priceSlip, standingOf, type Pricing } from '../slip/price-slip';
import type { OpenLine, OpenSlip } from '../slip/open-slip';

export const CASH: WayRules = { id: 'cash', side: 'cash', cash: true, change: true };

export interface RingUp {
  readonly newId: () => string;
  readonly slip: OpenSlip;
  readonly pricing: Pricing;
  readonly taxes: readonly SlipTax[];
  /** Event that this device sells at, with the place its goods are taken from. */
  readonly event: {
    readonly id: string;
    readonly timeZone: string;
    readonly swaps?: readonly TaxSwap[];
  };
  readonly drawer: string;
  /** Minor units handed over. */
  readonly handed: number;
  readonly deviceNumber: number;
  /** The device's next sale number. */
  readonly number: number;
  /** Milliseconds since 1970. */
  readonly now: number;
}

type SaleLine = BodyOf<'sale.rung'>['lines'][number];
type SaleService = NonNullable<BodyOf<'sale.rung'>['service']>;

/** Why nothing was rung up. */
export type RingUpRefusal =
  | { readonly code: 'sale/nothing-on-it' }
  | { readonly code: 'sale/paid-short'; readonly left: number }
  | { readonly code: 'sale/not-an-amount'; readonly handed: number };

export type RungUp =
  | {
      readonly ok: true;
      readonly drafts: readonly Draft[];
      readonly total: number;
      readonly change: number;
    }
  | { readonly ok: false; readonly refusal: RingUpRefusal };

/**
 * Takes cash for the whole slip and rings it up: a payment and a sale that belong together and
 * are appended together. A slip that comes to nothing needs no payment.
 *
 * Units: minor units. The sale keeps every figure as it is worked out here.
 */
export function ringUp(command: RingUp): RungUp {
  const { slip, pricing, taxes, event, handed, newId } = command;
  if (slip.lines.length === 0) return { ok: false, refusal: { code: 'sale/nothing-on-it' } };
  const { cash, card } = priceSlip(slip, pricing, taxes, event.swaps);
  if (!Number.isSafeInteger(handed) || handed < 0) {
    return { ok: false, refusal: { code: 'sale/not-an-amount', handed } };
  }
  const totals = { cashTotal: cash.total, cardTotal: card.total, cashStep: pricing.cashStep };
  const parts = handed > 0 ? [{ way: CASH.id, gives: handed }] : [];
  const paid = pay({ ...totals, ways: [CASH], parts });
  if ('error' in paid) return { ok: false, refusal: { code: 'sale/not-an-amount', handed } };
  if (paid.left !== 0) return { ok: false, refusal: { code: 'sale/paid-short', left: paid.left } };
  const [part] = paid.parts;
  const payments = part === undefined ? [] : [newId()];
  const drafts: Draft[] = payments.map((id) =>
    draft('payment.taken', id, event.id, {
      slip: slip.id,
      way: 'cash',
      drawer: command.drawer,
      clears: part?.clears ?? 0,
      charge: part?.charge ?? 0,
      surcharge: part?.surcharge ?? 0,
      change: paid.change,
      rounding: paid.rounding,
    }),
  );
  const { day, hour } = localTime(command.now, event.timeZone);
  const used = new Map(cash.taxes.map((tax) => [tax.id, tax]));
  const service = serviceIn(cash);
  const standing = standingOf(slip);
  drafts.push(
    draft('sale.rung', newId(), event.id, {
      slip: slip.id,
      number: command.number,
      deviceNumber: command.deviceNumber,
      place: event.id,
      day,
      hour,
      lines: slip.lines.map((line, at) => lineOf(line, cash.lines[at]!)),
      taxes: taxes.flatMap(({ id, name, rate }) => {
        const tax = used.get(id);
        return tax === undefined ? [] : [{ id, name, rate, base: tax.base, amount: tax.amount }];
      }),
      total: cash.total,
      payments,
      note: slip.note ?? '',
      ...(slip.customer === undefined ? {} : { customer: slip.customer.id }),
      // A customer is named by id alone: what is personal stands apart, and can be forgotten.
      ...(standing !== null && standing === slip.group ? { standingName: standing.name } : {}),
      ...(service === null ? {} : { service }),
    }),
  );
  // All devices have it on their lists; now it is gone from them.
  if (slip.kept !== undefined)
    drafts.push(draft('slip.gone', newId(), event.id, { slip: slip.id, why: 'rung' }));
  return { ok: true, drafts, total: cash.total, change: paid.change };
}

/** A line as a fact; what there is nothing to say of is left out. */
function lineOf(line: OpenLine, quoted: QuotedLine): SaleLine {
  const { gross, net, tax, total, standingDiscount } = quoted;
  return {
    item: line.item,
    name: line.name,
    detail: line.detail,
    unit: line.unit,
    quantity: line.quantity,
    price: line.price,
    gross,
    discount: gross - net,
    net,
    tax: { ...tax },
    total,
    cost: line.cost,
    isStocked: line.isStocked,
    ...(line.extras === undefined ? {} : { extras: line.extras }),
    ...(line.listPrice === undefined ? {} : { listPrice: line.listPrice, reason: line.reason }),
    ...(line.note === undefined ? {} : { note: line.note }),
    ...(line.seller === undefined ? {} : { seller: line.seller }),
    ...(line.maker === undefined ? {} : { maker: line.maker }),
    ...(line.tag === undefined ? {} : { tag: line.tag }),
    ...(standingDiscount === 0 ? {} : { standing: standingDiscount }),
  };
}

/** The service charge with its tax: what the lines leave of the total and of each tax. */
function serviceIn(cash: SideQuote): SaleService | null {
  if (cash.serviceCharge === 0) return null;
  const tax = Object.fromEntries(
    cash.taxes.flatMap(({ id, amount }) => {
      const own = amount - sum(cash.lines.map((line) => line.tax[id] ?? 0));
      return own === 0 ? [] : [[id, own]];
    }),
  );
  const total = cash.total - sum(cash.lines.map((line) => line.total));
  return { net: cash.serviceCharge, tax, total };
}

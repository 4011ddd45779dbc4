/** Ringing up: an open slip and what was handed over become entries. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { localTime } from '../event/local-time';
import { sum } from '../money/units';
import { pay, type WayRules } from '../payment/pay';
import type { SlipTax } from '../pricing/slip';
import { priceSlip, type Pricing } from '../slip/price-slip';
import type { OpenSlip } from '../slip/open-slip';

export const CASH: WayRules = { id: 'cash', side: 'cash', cash: true, change: true };

export interface RingUp {
  readonly newId: () => string;
  readonly slip: OpenSlip;
  readonly pricing: Pricing;
  readonly taxes: readonly SlipTax[];
  /** Event that this device sells at, with the place its goods are taken from. */
  readonly event: { readonly id: string; readonly timeZone: string };
  readonly drawer: string;
  /** Minor units handed over. */
  readonly handed: number;
  readonly deviceNumber: number;
  /** The device's next sale number. */
  readonly number: number;
  /** Milliseconds since 1970. */
  readonly now: number;
}

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
  const { cash, card } = priceSlip(slip, pricing, taxes);
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
  drafts.push(
    draft('sale.rung', newId(), event.id, {
      slip: slip.id,
      number: command.number,
      deviceNumber: command.deviceNumber,
      place: event.id,
      day,
      hour,
      lines: slip.lines.map((line, at) => {
        const { gross, net, tax, total } = cash.lines[at]!;
        const { key: _key, decimals: _decimals, taxes: _taxes, ...facts } = line;
        return { ...facts, gross, discount: gross - net, net, tax: { ...tax }, total };
      }),
      taxes: taxes.flatMap(({ id, name, rate }) => {
        const tax = used.get(id);
        return tax === undefined ? [] : [{ id, name, rate, base: tax.base, amount: tax.amount }];
      }),
      total: sum(cash.lines.map(({ total }) => total)),
      payments,
      note: '',
    }),
  );
  return { ok: true, drafts, total: cash.total, change: paid.change };
}

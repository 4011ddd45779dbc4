/** Money given back without a sale at hand: for goods as they are priced now, or for an amount. Minor units. */
import { BASE, type Row, type TaxSwap } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { localTime } from '../event/local-time';
import { readAmount } from '../money/amount-text';
import { readQuantity } from '../money/typed';
import { sum } from '../money/units';
import type { HeldAccount } from '../held/held-account';
import type { Person } from '../people/rights';
import type { SlipTax } from '../pricing/slip';
import { pricedBy, priceSlip } from '../slip/price-slip';
import { emptySlip, type OpenLine } from '../slip/open-slip';
import type { Pricing } from '../slip/pricing';
import { givenFor, type ChosenBack } from './make-return';

/** A line as it was typed. */
export interface TypedRefund {
  /** Undefined for an amount that is of no goods. */
  readonly item: Row<'items'> | undefined;
  /** How many, and what one is given back for, with its tax as prices are shown. */
  readonly quantity: string;
  readonly each: string;
  readonly to: ChosenBack['to'];
}

export interface MakeRefund {
  readonly newId: () => string;
  readonly lines: readonly TypedRefund[];
  readonly saleNumber: string;
  readonly reason: string;
  readonly way: string;
  readonly drawer: string | null;
  /** The customer's credit that it becomes, by a way that is paid so; null where money goes back. */
  readonly account?: HeldAccount | null;
  /** The card that it goes onto, as the reader read it, and the refund's own id; by a way that takes cards. */
  readonly card?: BodyOf<'refund.made'>['money']['card'] | null;
  readonly reference: string;
  readonly pricing: Pricing;
  readonly taxes: readonly SlipTax[];
  readonly event: {
    readonly id: string;
    readonly swaps: readonly TaxSwap[];
  } | null;
  readonly timeZone: string;
  readonly deviceNumber: number;
  /** The device's next. */
  readonly number: number;
  /** Milliseconds since 1970. */
  readonly now: number;
  /** What the same person has given back so that day, and may at most; null for any amount. */
  readonly before: number;
  readonly most: number | null;
}

/** What a person may give back on a day without a sale; null for any amount, as owners may. Minor units. */
export const refundMostOf = (
  person: Pick<Person, 'role'> | undefined,
  business: Pick<Row<'businesses'>, 'refundMost'> | undefined,
): number | null => (person?.role === 'owner' ? null : (business?.refundMost ?? null));

export type RefundRefusal =
  | { readonly code: 'refund/nothing' }
  | { readonly code: 'refund/quantity-wrong'; readonly name: string; readonly typed: string }
  | { readonly code: 'refund/amount-wrong'; readonly name: string; readonly typed: string }
  | { readonly code: 'refund/no-reason' }
  | { readonly code: 'refund/no-drawer' }
  /** Minor units that the person may still give back that day. */
  | { readonly code: 'refund/limit'; readonly left: number };

export type RefundOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[]; readonly amount: number }
  | { readonly ok: false; readonly refusal: RefundRefusal };

/** The lines as goods on a slip, or what is wrong with one. @param currency ISO 4217. */
function readLines(
  typed: readonly TypedRefund[],
  taxes: readonly SlipTax[],
  currency: string,
): readonly OpenLine[] | RefundRefusal {
  const lines: OpenLine[] = [];
  for (const [at, { item, quantity, each }] of typed.entries()) {
    if (item === undefined && each.trim() === '') continue;
    const name = item?.name ?? 'Amount';
    const many = readQuantity(quantity.trim() === '' ? '1' : quantity);
    const isWhole = (item?.unit ?? '') === '';
    if (many === null || many <= 0 || (isWhole && many % 1000 !== 0))
      return { code: 'refund/quantity-wrong', name, typed: quantity };
    const price = readAmount(each, currency);
    if (!price.ok) return { code: 'refund/amount-wrong', name, typed: each };
    lines.push({
      ...{ key: String(at), item: item?.id ?? null, name, detail: item?.detail ?? '' },
      ...{ unit: item?.unit ?? '', decimals: item?.decimals ?? 0, price: price.amount },
      quantity: many,
      // What is not listed carries the tax that most goods carry.
      taxes: item?.taxes ?? taxes.slice(0, 1).map(({ id }) => id),
      cost: item?.cost ?? null,
      isStocked: item?.isStocked ?? false,
      ...(item?.maker == null ? {} : { maker: item.maker }),
    });
  }
  return lines.length === 0 ? { code: 'refund/nothing' } : lines;
}

/** What it comes to, before anybody gives anything; null where it cannot be read. */
export function refundOwed(
  command: Pick<MakeRefund, 'lines' | 'pricing' | 'taxes' | 'event'>,
): number | null {
  const priced = priceLines(command);
  return 'code' in priced ? null : sum(priced.quoted.map(({ total }) => total));
}

function priceLines({
  lines: typed,
  pricing: asSetUp,
  taxes: allTaxes,
  event,
}: Pick<MakeRefund, 'lines' | 'pricing' | 'taxes' | 'event'>) {
  const lines = readLines(typed, allTaxes, asSetUp.currency);
  if ('code' in lines) return lines;
  const slip = { ...emptySlip(''), lines, service: null };
  const swaps = event?.swaps ?? [];
  const { pricing, taxes } = pricedBy(slip, { pricing: asSetUp, taxes: allTaxes, swaps });
  const { cash } = priceSlip(slip, pricing, taxes, []);
  return { lines, quoted: cash.lines, taxes, used: cash.taxes };
}

export function makeRefund(command: MakeRefund): RefundOutcome {
  const { newId, way, drawer, event, pricing } = command;
  const priced = priceLines(command);
  if ('code' in priced) return refuse(priced);
  const owed = sum(priced.quoted.map(({ total }) => total));
  if (owed === 0) return refuse({ code: 'refund/nothing' });
  const reason = command.reason.trim().slice(0, 200);
  if (reason === '') return refuse({ code: 'refund/no-reason' });
  if ((way === 'cash') !== (drawer !== null)) return refuse({ code: 'refund/no-drawer' });
  const { before, most } = command;
  if (most !== null && before + owed > most)
    return refuse({ code: 'refund/limit', left: Math.max(0, most - before) });
  const amount = givenFor(owed, drawer !== null, pricing.cashStep);
  const { day, hour } = localTime(command.now, command.timeZone);
  const typed = command.lines.filter(({ item, each }) => item !== undefined || each.trim() !== '');
  const body: BodyOf<'refund.made'> = {
    ...{ number: command.number, deviceNumber: command.deviceNumber, reason, day, hour },
    saleNumber: command.saleNumber.trim().toUpperCase().slice(0, 20),
    place: event?.id ?? BASE,
    lines: priced.lines.map(
      ({ item, name, detail, unit, quantity, cost, isStocked, maker }, at) => {
        const { net, tax, total } = priced.quoted[at]!;
        return {
          ...{ item, name, detail, unit, quantity, net, tax: { ...tax }, total, cost, isStocked },
          maker: maker ?? null,
          to: item === null ? 'stock' : (typed[at]?.to ?? 'stock'),
        };
      },
    ),
    taxes: priced.taxes.flatMap(({ id, name, rate }) => {
      const tax = priced.used.find((each) => each.id === id);
      return tax === undefined ? [] : [{ id, name, rate, base: tax.base, amount: tax.amount }];
    }),
    money: {
      ...{ way, drawer, amount, rounding: amount - owed },
      reference: command.reference.trim().slice(0, 80),
      ...(command.account == null ? {} : { account: command.account }),
      ...(command.card == null ? {} : { card: command.card }),
    },
  };
  return {
    ok: true,
    amount,
    drafts: [draft('refund.made', newId(), event?.id ?? null, body)],
  };
}

const refuse = (refusal: RefundRefusal): RefundOutcome => ({ ok: false, refusal });

/** Taking a part of the payment of an open slip; the part that clears the last of it rings it up. */
import type { Draft } from '../daybook/chain';
import { draft, privateDraft } from '../daybook/kinds';
import { isHeldMethod } from '../held/held-account';
import type { HeldFacts, HeldRefusal } from '../held/spend';
import { heldBy, heldPart } from '../held/held-part';
import type { PurposeSale } from '../held/one-purpose';
import { voucherNumber } from '../held/voucher-number';
import { localTime } from '../event/local-time';
import {
  goOn,
  takeNext,
  type PartTaken as PaymentPart,
  type PaymentRefusal,
  type Running,
  type Totals,
  type WayRules,
} from '../payment/pay';
import type { Signature } from '../payment/signature';
import { rulesOf, type WayToPay } from '../payment/ways';
import type { Quote, SlipTax } from '../pricing/slip';
import { pricedBy, priceSlip } from '../slip/price-slip';
import type { OpenSlip, PaidPart } from '../slip/open-slip';
import type { FixedPricing, Pricing } from '../slip/pricing';
import { exchangePart, exchangeReturns, partsOn } from './exchange';
import type { PointsFacts } from '../points/points-facts';
import { promotionPart, type AskPromotion, type PromotionRefusal } from '../points/promotion-part';
import {
  clearedByPromotions,
  earningLines,
  saleDrafts,
  type SaleSurroundings,
} from './sale-drafts';

export interface TakePart extends SaleSurroundings {
  readonly newId: () => string;
  readonly slip: OpenSlip;
  readonly pricing: Pricing;
  readonly taxes: readonly SlipTax[];
  readonly way: WayToPay;
  /** The drawer that cash goes into; null where none is open. */
  readonly drawer: string | null;
  /**
   * Minor units: what is handed over on the cash side, what is cleared on the card side; null is all
   * that is left.
   */
  readonly amount: number | null;
  /** Minor units that this part clears at most, where somebody pays a share; null is all that is left. */
  readonly upTo?: number | null;
  /** On top, apart from what is owed. */
  readonly tip?: number;
  readonly reference?: string;
  /** Minor units that a card was asked for in all: the part must come to that. */
  readonly asked?: number;
  readonly share?: number | null;
  /** The id of the entry, where it was told to others before; a new one otherwise. */
  readonly id?: string;
  readonly card?: PaidPart['card'];
  /** What is known of the account that it is paid from, where the way is paid so. */
  readonly held?: HeldFacts | null | undefined;
  /** Somebody with the right to it lets the customer owe more than was agreed. */
  readonly mayOweMore?: boolean | undefined;
  /** No network: others may spend the same meanwhile. */
  readonly isOutOfTouch?: boolean | undefined;
  /** Of the business, whose vouchers are taken. */
  readonly business?: string | undefined;
  /** Who pays, where that is asked for; personal, and so kept apart. */
  readonly payer?: Payer;
}

export interface Payer {
  /** What they drew; empty where nobody signs. */
  readonly signature: Signature;
  /** Whose cheque it is; empty where that is not said. */
  readonly name: string;
  /** Random text of at least 16 characters, to keep it apart by. */
  readonly salt: string;
}

/** Why a part was not taken; nothing has changed. */
export type PartRefusal =
  | { readonly code: 'sale/nothing-on-it' }
  | { readonly code: 'pay/nothing-left' }
  | { readonly code: 'pay/too-many-parts'; readonly most: number }
  | { readonly code: 'pay/not-as-asked'; readonly asked: number; readonly comesTo: number }
  | { readonly code: 'pay/not-an-amount' }
  | { readonly code: 'pay/more-than-left'; readonly left: number; readonly way: string }
  | { readonly code: 'pay/tip-wrong'; readonly tip: number }
  | { readonly code: 'pay/needs-customer'; readonly way: string }
  | { readonly code: 'pay/needs-reference'; readonly way: string; readonly reference: string }
  | HeldRefusal
  | PromotionRefusal
  | { readonly code: 'drawer/none' };

export interface PartDone {
  readonly ok: true;
  readonly drafts: readonly Draft[];
  readonly part: PaidPart;
  /** Minor units of what is owed that are still to pay. */
  readonly left: number;
  /** The slip as it goes on, or null when it has been rung up. */
  readonly slip: OpenSlip | null;
  readonly total: number;
}

export type PartOutcome = PartDone | { readonly ok: false; readonly refusal: PartRefusal };

/** Totals of a slip as the payment counts them: with the uplift waived, cards owe the cash total. */
export const totalsOf = (
  { cash, card }: Quote,
  slip: Pick<OpenSlip, 'isUpliftWaived'>,
  cashStep: number,
): Totals => ({
  cashTotal: cash.total,
  cardTotal: slip.isUpliftWaived === true ? cash.total : card.total,
  cashStep,
});

/** Minor units that are still to pay, on the cash side. */
export const leftOf = (quote: Quote, slip: Pick<OpenSlip, 'paid' | 'back' | 'customer'>): number =>
  goOn(quote.cash.total, partsOn(slip, quote.cash.total)).left;

/**
 * What a part would clear and charge, before anybody is asked for anything; a refusal's code where it
 * could not be taken. Units: minor units.
 */
export function wouldTake(
  quote: Quote,
  slip: OpenSlip,
  cashStep: number,
  way: WayToPay,
  amount: number | null,
  upTo: number | null = null,
): PaymentPart | PaymentRefusal['error'] {
  const totals = totalsOf(quote, slip, cashStep);
  const running = goOn(totals.cashTotal, partsOn(slip, totals.cashTotal));
  return takeUpTo(totals, rulesOf(way), amount, upTo, running);
}

/** As `takeNext`, but of what is left this part sees no more than `upTo`. */
function takeUpTo(
  totals: Totals,
  way: WayRules,
  amount: number | null,
  upTo: number | null,
  running: Running,
): PaymentPart | PaymentRefusal['error'] {
  const all = running.left;
  running.left = Math.min(all, upTo ?? all);
  const taken = takeNext(totals, way, amount ?? undefined, running);
  running.left = typeof taken === 'string' ? all : all - taken.clears;
  return taken;
}

/**
 * Takes one part. It is a fact once its drafts are on disk; when nothing is left, the sale is among
 * them.
 *
 * Units: minor units; docs/rules.md, "Payment".
 */
export function takePart(asIs: TakePart): PartOutcome {
  const { slip, way, newId, amount, upTo = null, tip = 0 } = asIs;
  const fixed = fixedFor(asIs);
  const { pricing, taxes, swaps } = fixed;
  const event = { ...asIs.event, swaps };
  const command = { ...asIs, pricing, taxes, event };
  const { share = null } = command;
  if (slip.lines.length === 0) return refuse({ code: 'sale/nothing-on-it' });
  const fault = partLacks(command);
  if (fault !== null) return refuse(fault);
  const quote = priceSlip(slip, pricing, taxes, event.swaps);
  const brought = exchangePart(slip, quote.cash.total, newId);
  const paid = [...(slip.paid ?? []), ...(brought === null ? [] : [brought])];
  const totals = totalsOf(quote, slip, pricing.cashStep);
  const running = goOn(totals.cashTotal, paid);
  if (running.left <= 0) return refuse({ code: 'pay/nothing-left' });
  const rules = rulesOf(way);
  const day = localTime(command.now, event.timeZone).day;
  const from = heldPart({
    ...{ method: way.method, amount, tip, left: Math.min(running.left, upTo ?? running.left) },
    ...{ customer: slip.customer?.id ?? null, reference: command.reference ?? '' },
    order: slip.handsOver,
    ...{ facts: command.held, mayOweMore: command.mayOweMore, business: command.business },
    sale: purposeSale({ ...slip, paid }, quote, taxes),
    most: command.isOutOfTouch === true ? way.offlineMost : null,
    day,
  });
  if (from !== null && !from.ok) return refuse(from.refusal);
  const given = promotionOn(slip, quote, taxes, {
    ...{ method: way.method, amount, tip, reference: command.reference ?? '', day },
    ...{ left: Math.min(running.left, upTo ?? running.left), facts: command.points },
    most: command.isOutOfTouch === true ? way.offlineMost : null,
  });
  if (given !== null && !given.ok) return refuse(given.refusal);
  const taken = takeUpTo(totals, rules, from?.amount ?? given?.amount ?? amount, upTo, running);
  if (typeof taken === 'string')
    return refuse(refusalOf(taken, Math.min(running.left, upTo ?? running.left), way));
  if (running.left > 0 && paid.length + 1 >= MOST_PARTS)
    return refuse({ code: 'pay/too-many-parts', most: MOST_PARTS });
  const comesTo = taken.charge + taken.surcharge + tip;
  if (command.asked !== undefined && command.asked !== comesTo)
    return refuse({ code: 'pay/not-as-asked', asked: command.asked, comesTo });
  const method = way.method;
  const part: PaidPart = {
    id: command.id ?? newId(),
    way: way.id,
    wayName: way.name,
    method,
    side: rules.side,
    drawer: method === 'cash' ? command.drawer : null,
    ...taken,
    tip,
    change: running.change,
    rounding: running.rounding,
    reference: referenceOf(command),
    customer: slip.customer?.id ?? null,
    share,
    card: command.card ?? null,
    ...(from === null ? {} : { held: heldBy(from, taken.charge) }),
    ...(given === null ? {} : { promotion: given.promotion }),
  };
  const drafts = [
    ...(brought === null ? [] : [partDraft(brought, { slip, event })]),
    partDraft(part, command),
  ];
  const { tip: _given, ...untipped } = slip;
  const now: OpenSlip = { ...untipped, paid: [...paid, part], fixed };
  const isPaid = running.left === 0;
  if (isPaid) {
    const { deviceNumber, returnNumber = 0 } = command;
    const back = exchangeReturns({
      ...{ newId, slip: now, event: event.id, deviceNumber, returnNumber, rest: null },
      ...localTime(command.now, event.timeZone),
      cashStep: pricing.cashStep,
    });
    const points = withoutTaken(command.points, part.promotion);
    drafts.push(...back, ...saleDrafts(now, quote, { ...command, points }));
  }
  return {
    ok: true,
    drafts,
    part,
    left: running.left,
    slip: isPaid ? null : now,
    total: totals.cashTotal,
  };
}

/** A slip as a voucher for goods of one tax finds it. */
export const purposeSale = (
  { lines, paid = [] }: Pick<OpenSlip, 'lines' | 'paid'>,
  quote: Quote,
  taxes: readonly SlipTax[],
): PurposeSale => ({
  lines: quote.cash.lines.map(({ tax, total }, at) => ({
    account: lines[at]?.account,
    ...{ tax, total },
  })),
  total: quote.cash.total,
  taxes: ratedTaxes(quote, taxes),
  before: paid,
});

type AskedOf = Omit<
  AskPromotion,
  'customer' | 'lines' | 'total' | 'taxes' | 'before' | 'isAfterVoucher'
>;

/** What points or a reward would pay of a slip; null for a way that is paid otherwise. */
export const promotionOn = (
  slip: OpenSlip,
  quote: Quote,
  taxes: readonly SlipTax[],
  asked: AskedOf,
): ReturnType<typeof promotionPart> =>
  promotionPart({
    ...asked,
    customer: slip.customer?.id ?? null,
    lines: earningLines(slip, quote.cash),
    before: clearedByPromotions(slip),
    isAfterVoucher: (slip.paid ?? []).some(({ held }) => held?.lowers !== undefined),
    total: quote.cash.total,
    taxes: ratedTaxes(quote, taxes),
  });

const ratedTaxes = ({ cash }: Quote, taxes: readonly SlipTax[]): AskPromotion['taxes'] =>
  cash.taxes.map(({ id, amount, base }) => {
    const { rate = '0' } = taxes.find((each) => each.id === id) ?? {};
    return { id, rate, amount, base };
  });

/** What a customer has once this part has been taken: the books do not know of it yet. */
function withoutTaken(
  facts: PointsFacts | null | undefined,
  promotion: PaidPart['promotion'],
): PointsFacts | null {
  if (facts == null || promotion === undefined) return facts ?? null;
  return { ...facts, has: new Map(facts.has).set(promotion.of, promotion.after) };
}

/** A voucher's number as it is kept; of a deposit the order's; anything else as it was typed. */
function referenceOf({ way, slip, reference = '' }: TakePart): string {
  if (way.method === 'deposit') return slip.handsOver?.number ?? '';
  return (way.method === 'voucher' ? voucherNumber(reference) : reference.trim()).slice(0, 80);
}

/** As many parts as a sale can name. */
export const MOST_PARTS = 50;

/** What the slip is priced by from its first part on. */
export const fixedFor = ({
  slip,
  pricing,
  taxes,
  event,
}: Pick<TakePart, 'slip' | 'pricing' | 'taxes' | 'event'>): FixedPricing => {
  const { currency, pricesIncludeTax, taxRounding, cashStep, typedSide, uplift, service } = pricing;
  const own = { currency, pricesIncludeTax, taxRounding, cashStep, typedSide, uplift, service };
  return pricedBy(slip, { pricing: own, taxes, swaps: event.swaps ?? [] });
};

export function partDraft(
  { id, ...part }: PaidPart,
  {
    slip,
    event,
    payer,
  }: Pick<TakePart, 'slip' | 'payer'> & { readonly event: { readonly id: string } },
): Draft {
  const body = { ...part, slip: slip.id };
  const { signature = [], name = '', salt = '' } = payer ?? {};
  const apart = {
    ...(signature.length === 0 ? {} : { signature: signature.map((stroke) => [...stroke]) }),
    ...(name.trim() === '' ? {} : { payer: name.trim().slice(0, 80) }),
  };
  return Object.keys(apart).length === 0
    ? draft('payment.taken', id, event.id, body)
    : privateDraft('payment.taken', id, body, salt, apart, event.id);
}

/**
 * What the way asks for and has not been told. Cards are held against it before anybody is charged:
 * a part that is refused afterwards has to be undone.
 */
export function partLacks({
  way,
  slip,
  drawer,
  reference = '',
  tip = 0,
}: Pick<TakePart, 'way' | 'slip' | 'drawer' | 'reference' | 'tip'>): PartRefusal | null {
  if (!Number.isSafeInteger(tip) || tip < 0) return { code: 'pay/tip-wrong', tip };
  if (way.method === 'cash' && drawer === null) return { code: 'drawer/none' };
  if (way.needsCustomer && slip.customer === undefined)
    return { code: 'pay/needs-customer', way: way.name };
  if (way.reference !== '' && reference.trim() === '' && !isHeldMethod(way.method))
    return { code: 'pay/needs-reference', way: way.name, reference: way.reference };
  return null;
}

function refusalOf(why: PaymentRefusal['error'], left: number, way: WayToPay): PartRefusal {
  if (why === 'more than is left') return { code: 'pay/more-than-left', left, way: way.name };
  return { code: why === 'nothing is left' ? 'pay/nothing-left' : 'pay/not-an-amount' };
}

const refuse = (refusal: PartRefusal): PartOutcome => ({ ok: false, refusal });

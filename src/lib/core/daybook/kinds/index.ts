/** Every kind of entry there is. docs/architecture.md says how to add one. */
import type { z } from 'zod';
import type { Draft } from '../chain';
import type { Entry } from '../entry';
import type { Immutable } from '../kind';
import { bankSet } from './bank-set';
import { bankJoined, bankStated, moneyUndone } from './bank-stated';
import { businessCash, businessLock, businessSet } from './business-set';
import { cardsJoined, cardsReported } from './cards-reported';
import { cashMoved } from './cash-moved';
import { categorySet } from './category-set';
import { chargeAgain, chargeFailed, chargePaid, chargeSet } from './charge';
import { countAccepted, countEnded, countNoted, countSet } from './count-set';
import { customerCard } from './customer-card';
import { customerConsent } from './customer-consent';
import { customerErased } from './customer-erased';
import { customerJoined } from './customer-joined';
import { customerSet } from './customer-set';
import { deviceSet } from './device-set';
import { drawerCounted } from './drawer-counted';
import { drawerLate } from './drawer-late';
import { drawerOpened } from './drawer-opened';
import { eventBring, eventCosts, eventPeople, eventPrices, eventTicked } from './event-groups';
import { eventSet, eventTaxes, eventWays } from './event-set';
import { eventSettled } from './event-settled';
import { eventBack, eventStage } from './event-stage';
import { holdDecided } from './hold-decided';
import {
  businessInvoicing,
  invoiceAsked,
  invoiceCredited,
  invoiceMade,
  invoiceNumbered,
} from './invoice';
import { handedIn } from './handed-in';
import { itemSet } from './item-set';
import { itemSupply } from './item-supply';
import { ledgerChart, ledgerHanded } from './ledger-chart';
import { listLine, listMailed, listPacked, listSet, listStage } from './list-set';
import { looseEndHanded, looseEndSettled } from './loose-end-settled';
import { moneyCame, paidOut, tipsShared } from './paid-out';
import { paymentAsked } from './payment-asked';
import { paymentResult } from './payment-result';
import { paymentReversed } from './payment-reversed';
import { paymentTaken } from './payment-taken';
import { makerMailed, makerSet } from './maker-set';
import { photoSet } from './photo-set';
import { pinSet } from './pin-set';
import { heldMoved, voucherLapsed, voucherSet } from './held';
import { businessPoints, pointsMoved, rewardSet } from './points';
import { orderPaid, orderSet, orderStage, orderTerms } from './order';
import { placeSet } from './place-set';
import { receiptAsked } from './receipt-asked';
import { slipGone } from './slip-gone';
import { slipLine } from './slip-line';
import { slipSet } from './slip-set';
import { slipTaken } from './slip-taken';
import { refundResult } from './refund-result';
import { returnMade } from './return-made';
import { businessReminders, reminderAsked } from './reminder';
import { saleRung } from './sale-rung';
import { refundMade } from './refund-made';
import { saleCorrected } from './sale-corrected';
import { saleVoided, voidUndone } from './sale-voided';
import { staffPay, staffSet } from './staff-set';
import { stockMoved } from './stock-moved';
import { supplierSet } from './supplier-set';
import { tableSet } from './table-set';
import { taxSet } from './tax-set';
import { waySet } from './way-set';

export const kinds = {
  'business.set': businessSet,
  'business.lock': businessLock,
  'business.cash': businessCash,
  'business.points': businessPoints,
  'business.invoicing': businessInvoicing,
  'business.reminders': businessReminders,
  'reward.set': rewardSet,
  'tax.set': taxSet,
  'category.set': categorySet,
  'item.set': itemSet,
  'item.supply': itemSupply,
  'supplier.set': supplierSet,
  'place.set': placeSet,
  'maker.set': makerSet,
  'maker.mailed': makerMailed,
  'photo.set': photoSet,
  'table.set': tableSet,
  'way.set': waySet,
  'staff.set': staffSet,
  'staff.pay': staffPay,
  'pin.set': pinSet,
  'device.set': deviceSet,
  'customer.set': customerSet,
  'customer.consent': customerConsent,
  'customer.card': customerCard,
  'customer.erased': customerErased,
  'customer.joined': customerJoined,
  'event.set': eventSet,
  'event.taxes': eventTaxes,
  'event.ways': eventWays,
  'event.costs': eventCosts,
  'event.prices': eventPrices,
  'event.people': eventPeople,
  'event.bring': eventBring,
  'event.ticked': eventTicked,
  'event.stage': eventStage,
  'event.back': eventBack,
  'drawer.opened': drawerOpened,
  'drawer.counted': drawerCounted,
  'drawer.late': drawerLate,
  'cash.moved': cashMoved,
  'cards.reported': cardsReported,
  'cards.joined': cardsJoined,
  'money.came': moneyCame,
  'money.undone': moneyUndone,
  'handed.in': handedIn,
  'bank.set': bankSet,
  'bank.stated': bankStated,
  'bank.joined': bankJoined,
  'ledger.chart': ledgerChart,
  'ledger.handed': ledgerHanded,
  'tips.shared': tipsShared,
  'paid.out': paidOut,
  'event.settled': eventSettled,
  'stock.moved': stockMoved,
  'list.set': listSet,
  'list.line': listLine,
  'list.stage': listStage,
  'list.packed': listPacked,
  'list.mailed': listMailed,
  'count.set': countSet,
  'count.noted': countNoted,
  'count.accepted': countAccepted,
  'count.ended': countEnded,
  'slip.set': slipSet,
  'slip.line': slipLine,
  'slip.taken': slipTaken,
  'slip.gone': slipGone,
  'sale.rung': saleRung,
  'sale.voided': saleVoided,
  'void.undone': voidUndone,
  'sale.corrected': saleCorrected,
  'refund.made': refundMade,
  'return.made': returnMade,
  'refund.result': refundResult,
  'payment.asked': paymentAsked,
  'payment.taken': paymentTaken,
  'payment.result': paymentResult,
  'payment.reversed': paymentReversed,
  'hold.decided': holdDecided,
  'voucher.set': voucherSet,
  'voucher.lapsed': voucherLapsed,
  'held.moved': heldMoved,
  'points.moved': pointsMoved,
  'order.set': orderSet,
  'order.terms': orderTerms,
  'order.stage': orderStage,
  'order.paid': orderPaid,
  'invoice.made': invoiceMade,
  'invoice.credited': invoiceCredited,
  'invoice.numbered': invoiceNumbered,
  'invoice.asked': invoiceAsked,
  'reminder.asked': reminderAsked,
  'charge.set': chargeSet,
  'charge.paid': chargePaid,
  'charge.failed': chargeFailed,
  'charge.again': chargeAgain,
  'receipt.asked': receiptAsked,
  'looseEnd.settled': looseEndSettled,
  'looseEnd.handed': looseEndHanded,
} as const;

export type Kind = keyof typeof kinds;
type PrivateSchema<K extends Kind> = (typeof kinds)[K]['private'];
/** What the private part of a kind holds; `never` for most. */
export type PrivateOf<K extends Kind> =
  PrivateSchema<K> extends z.ZodType ? z.infer<PrivateSchema<K>> : never;
export type BodyOf<K extends Kind> = Immutable<z.infer<(typeof kinds)[K]['body']>>;
/** An entry of a known kind whose body has been checked and brought up to date. */
export type EntryOf<K extends Kind> = Omit<Entry, 'kind' | 'body' | 'private'> & {
  readonly kind: K;
  readonly body: BodyOf<K>;
  /** Missing where there is none, and where it has been erased. */
  readonly private?: { readonly salt: string; readonly data: PrivateOf<K> } | undefined;
};
export type KnownEntry = { [K in Kind]: EntryOf<K> }[Kind];

export const isKind = (text: string): text is Kind => Object.hasOwn(kinds, text);

/** A draft of a known kind; the types say what its body must hold. */
export function draft<K extends Kind>(
  kind: K,
  id: string,
  event: string | null,
  body: BodyOf<K>,
): Draft {
  return { id, kind, v: kinds[kind].v, event, body: body };
}

/**
 * A draft with a private part.
 * @param salt Random, at least 16 characters, so that nobody can guess back from the digest.
 */
export function privateDraft<K extends Kind>(
  kind: K,
  id: string,
  body: BodyOf<K>,
  salt: string,
  data: PrivateOf<K>,
  event: string | null = null,
): Draft {
  return { ...draft(kind, id, event, body), private: { salt, data } };
}

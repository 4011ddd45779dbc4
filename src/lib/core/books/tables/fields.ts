/** What fields of rows hold that is more than a text or a number. */
import type { z } from 'zod';
import type { Immutable } from '../../daybook/kind';
import type { BodyOf } from '../../daybook/kinds';
import type { paymentTaken } from '../../daybook/kinds/payment-taken';
import type { openLine } from '../../daybook/kinds/slip-line';
import type { Discount } from '../../pricing/slip';

export interface EventDay {
  readonly date: string;
  readonly opens: string;
  readonly closes: string;
}
export type PitchFee = BodyOf<'event.costs'>['fee'];
export type EventCost = BodyOf<'event.costs'>['costs'][number];
export type EventPrice = BodyOf<'event.prices'>['single'][number];
export type PriceOver = BodyOf<'event.prices'>['over'][number];
export type Duty = BodyOf<'event.people'>['duty'][number];
export type ThingToBring = BodyOf<'event.bring'>['things'][number];
export interface TableGoods {
  readonly item: string;
  readonly width: number;
}
export interface Reorder {
  readonly place: string;
  readonly level: number;
}
export type ItemSupplier = BodyOf<'item.supply'>['suppliers'][number];
export type Par = BodyOf<'item.supply'>['pars'][number];
export interface Choice {
  readonly name: string;
  readonly values: readonly string[];
}
export interface Extra {
  readonly name: string;
  readonly price: number;
}
export interface ExtraGroup {
  readonly name: string;
  readonly least: number;
  readonly most: number;
  readonly options: readonly (Extra & { readonly isDefault: boolean })[];
}
export interface GroupDiscount {
  readonly id: string;
  readonly name: string;
  /** Percent. */
  readonly percent: string;
}
export interface TaxSwap {
  readonly from: string;
  readonly to: string | null;
}
export interface Tips {
  /** Percent each. */
  readonly percents: readonly string[];
  readonly of: 'total' | 'net';
  readonly isOnReader: boolean;
}
export interface Carry {
  readonly perPayment: number;
  readonly perDevice: number;
  readonly hours: number;
}
/** What a card payment leaves behind. */
export type CardFacts = Immutable<NonNullable<z.infer<(typeof paymentTaken)['body']>['card']>>;
export type Service = Discount & { readonly taxes: readonly string[] };
/** A line of a kept slip, without its key. */
export type KeptLine = Immutable<z.infer<typeof openLine>>;
/** A tax as a sum: of what, and how much. Minor units. */
export interface Taxed {
  readonly base: number;
  readonly amount: number;
}
export interface SaleTax {
  readonly id: string;
  readonly name: string;
  readonly rate: string;
  readonly base: number;
  readonly amount: number;
}

/** What somebody did that an owner looks through. */
export type Act =
  | 'price.set'
  | 'person.set'
  | 'set-up'
  | 'lock.set'
  | 'event.taxes'
  | 'event.ways'
  | 'event.costs'
  | 'event.prices'
  | 'event.back'
  | 'discount.given'
  | 'price.changed'
  | 'drawer.opened'
  | 'drawer.counted'
  | 'drawer.late'
  | 'cash.moved'
  | 'cash.set'
  | 'money.came'
  | 'money.undone'
  | 'handed.in'
  | 'ledger.handed'
  | 'tips.shared'
  | 'paid.out'
  | 'event.settled'
  | 'payment.reversed'
  | 'sale.voided'
  | 'void.undone'
  | 'return.made'
  | 'voucher.set'
  | 'held.moved'
  | 'points.moved'
  | 'voucher.lapsed'
  | 'order.off'
  | 'order.paid'
  | 'invoice.made'
  | 'invoice.credited'
  | 'charge.set'
  | 'sale.corrected'
  | 'refund.made'
  | 'hold.decided'
  | 'customer.erased'
  | 'customer.joined'
  | 'customer.parted'
  | 'card.kept'
  | 'card.removed'
  | 'count.accepted'
  | 'looseEnd.settled';

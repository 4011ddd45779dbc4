/** Every table of the books. Amounts are minor units, quantities thousandths, times ISO text. */
import type { z } from 'zod';
import type { Immutable } from '../daybook/kind';
import type { paymentTaken } from '../daybook/kinds/payment-taken';
import type { openLine } from '../daybook/kinds/slip-line';
import type { Pieces } from '../money/worth';
import type { Signature } from '../payment/signature';
import type { PinHash } from '../people/pin';
import type { Discount } from '../pricing/slip';
import { sumsBy } from './sum-tables';
import {
  facts,
  flag,
  id,
  json,
  records,
  text,
  textOrNull,
  whole,
  wholeOrNull,
  type RowOf,
} from './table-spec';

export interface EventDay {
  readonly date: string;
  readonly opens: string;
  readonly closes: string;
}
export interface TableGoods {
  readonly item: string;
  readonly width: number;
}
export interface Reorder {
  readonly place: string;
  readonly level: number;
}
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

/** Sums of an event: a device keeps those of recent ones. */
const ofEvents = { indexes: ['event'], keep: 'recent' } as const;

export const tables = {
  businesses: records({
    set: {
      name: text(80),
      currency: text(3),
      locale: text(20),
      timeZone: text(40),
      pricesIncludeTax: flag(),
      taxRounding: text(4),
      cashStep: whole(),
      typedSide: text(4),
      uplift: text(12),
      groups: json<readonly GroupDiscount[]>([]),
      service: json<Service | null>(null),
      tips: json<Tips | null>(null),
      carry: json<Carry | null>(null),
      signAbove: wholeOrNull(),
      receiptHead: text(500),
      receiptFoot: text(500),
      lockAfter: whole(),
      forgetAfter: whole(),
    },
  }),
  taxes: records({
    set: {
      name: text(80),
      rate: text(12),
      level: text(10),
      on: json<readonly string[]>([]),
      sort: whole(),
      isActive: flag(),
    },
  }),
  items: records({
    set: {
      name: text(80),
      detail: text(80),
      description: text(500),
      code: text(40),
      barcodes: json<readonly string[]>([]),
      category: text(80),
      colour: text(7),
      unit: text(12),
      decimals: whole(),
      price: whole(),
      otherPrice: wholeOrNull(),
      isOpenPrice: flag(),
      isTimed: flag(),
      taxes: json<readonly string[]>([]),
      cost: wholeOrNull(),
      low: whole(),
      reorder: json<readonly Reorder[]>([]),
      isStocked: flag(),
      variantOf: textOrNull(40),
      values: json<readonly string[]>([]),
      choices: json<readonly Choice[]>([]),
      extras: json<readonly ExtraGroup[]>([]),
      maker: textOrNull(40),
      commodityCode: text(20),
      isReturnable: flag(),
      earnsPoints: flag(),
      isActive: flag(),
    },
  }),
  categories: records({ set: { name: text(80), sort: whole(), isActive: flag() } }),
  /** Ways to pay. */
  ways: records({
    set: {
      name: text(80),
      sort: whole(),
      method: text(10),
      side: text(4),
      needsCustomer: flag(),
      reference: text(40),
      account: text(80),
      surchargeRate: text(12),
      surchargeFixed: whole(),
      opensDrawer: flag(),
      givesChange: flag(),
      ledger: text(40),
      isActive: flag(),
    },
  }),
  makers: records({
    set: { number: whole(), name: text(80), commission: text(12), isActive: flag() },
  }),
  /** Pictures of items, by item, as data addresses. */
  photos: records({ set: { picture: json<{ readonly data: string } | null>(null) } }),
  tables: records({
    set: {
      name: text(80),
      sort: whole(),
      goods: json<readonly TableGoods[]>([]),
      event: textOrNull(40),
      size: text(6),
      isActive: flag(),
    },
  }),
  staff: records({
    set: {
      name: text(80),
      role: text(10),
      isActive: flag(),
      rights: json<readonly string[]>([]),
      discountUpTo: text(12),
    },
    pin: { pin: json<PinHash | null>(null) },
  }),
  devices: records({
    set: { name: text(80), number: whole(), event: textOrNull(40), drawer: textOrNull(40) },
  }),
  customers: records({
    set: { discount: text(12), terms: whole(), creditLimit: wholeOrNull(), isActive: flag() },
    /** Personal; empty once it has been erased. */
    who: {
      name: text(80),
      email: text(254),
      phone: text(40),
      company: text(80),
      address: text(300),
      taxNumber: text(40),
      note: text(500),
      isErased: flag(),
    },
    consent: { mayKeep: flag() },
    /** On file; all of it empty where there is none. */
    card: { cardScheme: text(20), cardLast4: text(4), cardExpiry: text(7) },
  }),
  /** Every time a customer said yes or no to being kept. */
  consents: facts(
    ['id'],
    {
      id: id(),
      customer: id(),
      event: textOrNull(40),
      at: text(30),
      by: textOrNull(40),
      isGiven: flag(),
      way: text(10),
    },
    { indexes: ['customer'] },
  ),
  settlements: facts(
    ['id'],
    {
      id: id(),
      looseEnd: text(80),
      event: textOrNull(40),
      at: text(30),
      by: textOrNull(40),
      how: text(10),
      reason: text(500),
    },
    { indexes: ['looseEnd'] },
  ),
  events: records({
    set: {
      name: text(80),
      short: text(24),
      organiser: text(80),
      place: text(120),
      pitch: text(40),
      series: textOrNull(40),
      days: json<readonly EventDay[]>([]),
      timeZone: text(40),
      stripe: text(7),
      cloth: text(7),
      swaps: json<readonly TaxSwap[]>([]),
      ways: json<readonly string[] | null>(null),
      notes: text(500),
    },
    stage: { stage: text(10) },
  }),

  drawers: facts(
    ['id'],
    {
      id: id(),
      event: textOrNull(40),
      device: id(),
      by: textOrNull(40),
      at: text(30),
      name: text(80),
      float: whole(),
      counts: json<readonly Pieces[]>([]),
    },
    { indexes: ['event'] },
  ),
  drawerSums: sumsBy('drawerSums', { drawer: id() }),
  drawerReads: facts(
    ['id'],
    {
      id: id(),
      drawer: id(),
      event: textOrNull(40),
      device: id(),
      by: textOrNull(40),
      at: text(30),
      number: whole(),
      counts: json<readonly Pieces[]>([]),
      expected: whole(),
      counted: whole(),
      difference: whole(),
      reason: text(500),
    },
    { indexes: ['drawer', 'event'] },
  ),

  /** What an owner looks through: prices, set-up, discounts, drawers. */
  acts: facts(
    ['id'],
    {
      id: id(),
      event: textOrNull(40),
      device: id(),
      by: textOrNull(40),
      lentBy: textOrNull(40),
      at: text(30),
      what: text(20),
      about: text(120),
      amount: wholeOrNull(),
    },
    { indexes: ['by', 'at'], keep: 'recent' },
  ),

  movements: facts(
    ['id', 'item'],
    {
      id: text(44),
      item: id(),
      event: textOrNull(40),
      at: text(30),
      by: textOrNull(40),
      from: id(),
      to: id(),
      quantity: whole(),
      reason: text(20),
    },
    { indexes: ['event'], keep: 'recent' },
  ),
  stock: sumsBy('stock', { place: id(), item: id() }, { indexes: ['place'] }),

  /** Slips that are kept for later: set aside, or tabs. */
  slips: records(
    {
      set: {
        sort: text(5),
        name: text(80),
        customer: textOrNull(40),
        group: json<Omit<GroupDiscount, 'id'> | null>(null),
        discount: json<Discount | null>(null),
        service: json<Service | null>(null),
        note: text(500),
      },
      /** Whether it is open, taken up by a device, or gone. */
      state: {
        state: text(5),
        device: textOrNull(40),
        event: textOrNull(40),
        by: textOrNull(40),
        at: text(30),
        /** Of one that is gone: its lines as whoever ended it knew them; null where that was not written down. */
        known: json<readonly { readonly id: string; readonly stamp: string }[] | null>(null),
      },
    },
    { indexes: ['state'] },
  ),
  slipLines: records(
    { set: { slip: id(), person: text(40), line: json<KeptLine | null>(null) } },
    { indexes: ['slip'] },
  ),

  sales: facts(
    ['id'],
    {
      id: id(),
      event: textOrNull(40),
      device: id(),
      by: textOrNull(40),
      at: text(30),
      slip: id(),
      number: text(20),
      day: text(10),
      hour: whole(),
      units: whole(),
      total: whole(),
      tax: whole(),
      taxes: json<readonly SaleTax[]>([]),
      payments: json<readonly string[]>([]),
      note: text(500),
      customer: textOrNull(40),
      standingName: text(80),
      /** With its tax, where prices are before tax. */
      service: whole(),
      serviceTax: whole(),
      /** What card parts paid above the cash price, with its tax; not in the total. */
      uplift: whole(),
      upliftTaxes: json<Readonly<Record<string, Taxed>>>({}),
      /** Where the goods were taken from. */
      place: text(40),
      isUpliftWaived: flag(),
    },
    { indexes: ['event', 'slip'], keep: 'recent' },
  ),
  saleLines: facts(
    ['sale', 'line'],
    {
      sale: id(),
      line: whole(),
      event: textOrNull(40),
      item: textOrNull(40),
      name: text(80),
      detail: text(80),
      unit: text(12),
      quantity: whole(),
      price: whole(),
      gross: whole(),
      discount: whole(),
      net: whole(),
      tax: json<Readonly<Record<string, number>>>({}),
      total: whole(),
      cost: wholeOrNull(),
      extras: json<readonly Extra[]>([]),
      listPrice: wholeOrNull(),
      reason: text(200),
      note: text(200),
      seller: textOrNull(40),
      maker: textOrNull(40),
      tag: text(40),
      standing: whole(),
      isStocked: flag(),
    },
    { indexes: ['sale', 'event'], keep: 'recent' },
  ),
  /** Sales that were voided. */
  voids: facts(
    ['id'],
    {
      id: id(),
      event: textOrNull(40),
      device: id(),
      by: textOrNull(40),
      lentBy: textOrNull(40),
      at: text(30),
      sale: id(),
      reason: text(200),
    },
    { indexes: ['sale', 'event'], keep: 'recent' },
  ),
  voidsUndone: facts(
    ['id'],
    {
      id: id(),
      event: textOrNull(40),
      by: textOrNull(40),
      at: text(30),
      /** The entry that voided it a second time. */
      void: id(),
      sale: id(),
      reason: text(200),
    },
    { indexes: ['sale', 'event'], keep: 'recent' },
  ),
  payments: facts(
    ['id'],
    {
      id: id(),
      event: textOrNull(40),
      device: id(),
      by: textOrNull(40),
      at: text(30),
      slip: id(),
      way: text(40),
      wayName: text(80),
      method: text(10),
      side: text(4),
      drawer: textOrNull(40),
      clears: whole(),
      charge: whole(),
      surcharge: whole(),
      tip: whole(),
      change: whole(),
      rounding: whole(),
      reference: text(80),
      customer: textOrNull(40),
      share: wholeOrNull(),
      card: json<CardFacts | null>(null),
    },
    { indexes: ['event', 'slip'], keep: 'recent' },
  ),
  /** Card payments, each from being asked for to what became of it. The id is the payment's. */
  cardPayments: records(
    {
      asked: {
        slip: id(),
        way: text(40),
        event: textOrNull(40),
        device: id(),
        by: textOrNull(40),
        at: text(30),
        amount: whole(),
      },
      taken: {
        takenState: text(10),
        scheme: text(20),
        last4: text(4),
        clears: whole(),
        customer: textOrNull(40),
        sealed: text(4000),
        voice: text(12),
      },
      reversed: { isReversed: flag() },
      /** What becomes of money that is held: `capture`, `release` or nothing yet; by which entry, on which device. */
      decided: {
        decision: text(10),
        decidedAmount: whole(),
        decidedBy: text(40),
        decidedOn: text(40),
      },
      result: {
        state: text(10),
        resultAmount: whole(),
        approval: text(12),
        acquirer: text(64),
        reason: text(120),
        expires: text(30),
        resultAt: text(30),
      },
    },
    { indexes: ['device', 'event', 'state', 'reason', 'reversedStamp'], keep: 'recent' },
  ),
  /** Who paid: what they drew, whose cheque it is; gone when the customer is forgotten. */
  payers: facts(
    ['id'],
    {
      /** The payment's. */
      id: id(),
      event: textOrNull(40),
      customer: textOrNull(40),
      name: text(80),
      strokes: json<Signature>([]),
    },
    { indexes: ['event', 'customer'], keep: 'recent' },
  ),
  /** Parts that were given back. */
  reversals: facts(
    ['id'],
    {
      id: id(),
      payment: id(),
      event: textOrNull(40),
      device: id(),
      by: textOrNull(40),
      at: text(30),
      slip: id(),
      amount: whole(),
      reason: text(200),
    },
    { indexes: ['payment', 'event'], keep: 'recent' },
  ),

  /** Receipts that somebody wants sent. */
  receiptAsks: facts(
    ['id'],
    {
      id: id(),
      event: textOrNull(40),
      at: text(30),
      by: textOrNull(40),
      sale: id(),
      customer: textOrNull(40),
      way: text(10),
      isGift: flag(),
    },
    { indexes: ['sale'], keep: 'recent' },
  ),

  eventTotals: sumsBy('eventTotals', { event: id() }),
  eventItems: sumsBy('eventItems', { event: id(), item: id() }, ofEvents),
  eventHours: sumsBy('eventHours', { event: id(), day: text(10), hour: whole() }, ofEvents),
  eventTaxes: sumsBy('eventTaxes', { event: id(), tax: id(), rate: text(12) }, ofEvents),
  eventTips: sumsBy('eventTips', { event: id(), seller: id() }, ofEvents),
  eventWays: sumsBy('eventWays', { event: id(), way: text(40) }, ofEvents),
} as const;

export type TableName = keyof typeof tables;
export type Row<T extends TableName> = RowOf<(typeof tables)[T]>;
export const tableNames = Object.keys(tables) as readonly TableName[];

export * from './names';

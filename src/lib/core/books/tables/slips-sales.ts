/** Slips that are kept, sales that were rung up, receipts that are to be sent. */
import type { BodyOf } from '../../daybook/kinds';
import type { KeptTax } from '../../held/one-purpose';
import type { Discount } from '../../pricing/slip';
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
  word,
} from '../table-spec';
import { saidBy } from './said-by';

interface OrderedLine {
  readonly order: string;
  readonly line: string;
  /** Missing in what was written before it was noted. */
  readonly number?: string | undefined;
}
import type { Extra, GroupDiscount, Service, KeptLine, Taxed, SaleTax } from './fields';

export const slipAndSaleTables = {
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
        back: json<BodyOf<'slip.set'>['back']>([]),
        handsOver: json<BodyOf<'slip.set'>['handsOver']>(null),
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
      ...saidBy,
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
      /** Of the total: what was paid in on accounts, and is not sold. */
      paidIn: whole(),
      earned: json<BodyOf<'sale.rung'>['earned'] | null>(null),
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
      /** What it was paid in on, where it is no goods; of a voucher until when it can be spent. */
      account: textOrNull(60),
      until: text(10),
      /** Of a voucher for goods of one tax: that tax of what it was sold for. */
      kept: json<KeptTax | null>(null),
      /** The line of an order that was handed over with it. */
      ordered: json<OrderedLine | null>(null),
      /** Points that it brought, and what counted towards each reward. */
      points: whole(),
      toward: json<Readonly<Record<string, number>>>({}),
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
  /** What had been booked wrongly of sales; their rows stay as they were (sale/corrections.ts). */
  corrections: facts(
    ['id'],
    {
      id: id(),
      event: textOrNull(40),
      by: textOrNull(40),
      at: text(30),
      /** One that was said later counts. */
      stamp: text(60),
      sale: id(),
      saleNumber: text(20),
      reason: text(200),
      fix: json<BodyOf<'sale.corrected'>['fix']>({ is: 'customer', customer: null }),
    },
    { indexes: ['sale', 'event'], keep: 'recent' },
  ),
  /** Money given back without a sale at hand. */
  refunds: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      number: text(20),
      saleNumber: text(20),
      reason: text(200),
      day: text(10),
      hour: whole(),
      place: text(40),
      lines: json<BodyOf<'refund.made'>['lines']>([]),
      taxes: json<BodyOf<'refund.made'>['taxes']>([]),
      money: json<BodyOf<'refund.made'>['money']>({
        ...{ way: '', drawer: null, amount: 0, rounding: 0, reference: '' },
      }),
      /** Of `money`, to be looked up by. */
      way: text(40),
      drawer: textOrNull(40),
      /** All that was given back, before cash was rounded; minor units. */
      total: whole(),
    },
    { indexes: ['event', 'day'], keep: 'recent' },
  ),
  /** Goods of sales that came back, and what was given back for them. */
  returns: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      sale: id(),
      saleNumber: text(20),
      number: text(20),
      day: text(10),
      hour: whole(),
      reason: text(200),
      place: text(40),
      lines: json<BodyOf<'return.made'>['lines']>([]),
      /** Postings of the sale, the other way. */
      takes: json<BodyOf<'return.made'>['takes']['postings']>([]),
      surcharges: json<BodyOf<'return.made'>['surcharges']>([]),
      /** Of parts that points and rewards paid. */
      promotions: json<BodyOf<'return.made'>['promotions']>([]),
      money: json<BodyOf<'return.made'>['money']>([]),
      /** The slip that what came back pays for, where it was exchanged. */
      forSlip: textOrNull(40),
      /** All that was given back, before cash was rounded; minor units. */
      total: whole(),
    },
    { indexes: ['sale', 'event', 'forSlip'], keep: 'recent' },
  ),
  /** Receipts that somebody wants sent: the server sends them. */
  receiptAsks: facts(
    ['id'],
    {
      id: id(),
      event: textOrNull(40),
      at: text(30),
      by: textOrNull(40),
      sale: id(),
      customer: textOrNull(40),
      way: word<BodyOf<'receipt.asked'>['way']>(10),
      isGift: flag(),
    },
    { indexes: ['sale'], keep: 'server' },
  ),
} as const;

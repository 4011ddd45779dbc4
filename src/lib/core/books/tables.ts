/** Every table of the books. Amounts are minor units, quantities thousandths, times ISO text. */
import type { Pieces } from '../money/worth';
import type { PinHash } from '../people/pin';
import {
  facts,
  flag,
  id,
  json,
  records,
  sums,
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
export interface SaleTax {
  readonly id: string;
  readonly name: string;
  readonly rate: string;
  readonly base: number;
  readonly amount: number;
}

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
      receiptHead: text(500),
      receiptFoot: text(500),
      lockAfter: whole(),
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
      code: text(40),
      barcodes: json<readonly string[]>([]),
      category: text(80),
      colour: text(7),
      unit: text(12),
      decimals: whole(),
      price: whole(),
      taxes: json<readonly string[]>([]),
      cost: wholeOrNull(),
      low: whole(),
      isStocked: flag(),
      isActive: flag(),
    },
  }),
  tables: records({
    set: {
      name: text(80),
      sort: whole(),
      goods: json<readonly TableGoods[]>([]),
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
      pin: json<PinHash | null>(null),
    },
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
  drawerSums: sums(['drawer'], {
    drawer: id(),
    parts: whole(),
    handed: whole(),
    change: whole(),
    rounding: whole(),
  }),
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
      id: id(),
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
  stock: sums(
    ['place', 'item'],
    { place: id(), item: id(), quantity: whole() },
    { indexes: ['place'] },
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
    },
    { indexes: ['event'], keep: 'recent' },
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
      drawer: id(),
      clears: whole(),
      charge: whole(),
      surcharge: whole(),
      change: whole(),
      rounding: whole(),
    },
    { indexes: ['event'], keep: 'recent' },
  ),

  eventTotals: sums(['event'], {
    event: id(),
    sales: whole(),
    takings: whole(),
    tax: whole(),
    units: whole(),
    cost: whole(),
  }),
  eventItems: sums(
    ['event', 'item'],
    { event: id(), item: id(), quantity: whole(), takings: whole(), tax: whole() },
    { indexes: ['event'] },
  ),
  eventHours: sums(
    ['event', 'day', 'hour'],
    { event: id(), day: text(10), hour: whole(), sales: whole(), takings: whole() },
    { indexes: ['event'] },
  ),
  eventTaxes: sums(
    ['event', 'tax', 'rate'],
    { event: id(), tax: id(), rate: text(12), base: whole(), amount: whole() },
    { indexes: ['event'] },
  ),
  eventWays: sums(
    ['event', 'way'],
    { event: id(), way: text(40), parts: whole(), takings: whole() },
    { indexes: ['event'] },
  ),
} as const;

export type TableName = keyof typeof tables;
export type Row<T extends TableName> = RowOf<(typeof tables)[T]>;
export const tableNames = Object.keys(tables) as readonly TableName[];

/** Stock: the vendor's base, and where goods go when they are sold. */
export const BASE = 'base';
export const GONE_SOLD = 'gone:sold';
/** Where goods come from when they are delivered. */
export const SUPPLIERS = 'suppliers';
/** Sums by item or event need a key also where there is none. */
export const UNLISTED = 'unlisted';
export const NO_EVENT = 'none';

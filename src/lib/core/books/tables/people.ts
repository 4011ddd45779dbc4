/** Who works here, who buys, and what was done by whom. */
import type { BodyOf } from '../../daybook/kinds';
import type { Act } from './fields';
import type { PinHash } from '../../people/pin';
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

export const peopleTables = {
  staff: records({
    set: {
      name: text(80),
      role: word<BodyOf<'staff.set'>['role']>(10),
      isActive: flag(),
      rights: json<readonly string[]>([]),
      discountUpTo: text(12),
    },
    pin: { pin: json<PinHash | null>(null) },
  }),
  customers: records(
    {
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
        /** Of a card or tag that they are known by. */
        code: text(40),
        isErased: flag(),
      },
      consent: { mayKeep: flag() },
      /** On file; all of it empty where there is none. */
      card: { cardScheme: text(20), cardLast4: text(4), cardExpiry: text(7) },
      /** The record of the same person that they go by; null for their own (core/customer/joined). */
      joined: { joinedInto: textOrNull(40) },
    },
    { indexes: ['code', 'joinedInto'] },
  ),
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
      way: word<BodyOf<'customer.consent'>['way']>(10),
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
      how: word<BodyOf<'looseEnd.settled'>['how']>(10),
      reason: text(500),
    },
    { indexes: ['looseEnd'] },
  ),
  /** Who was asked to look after a loose end. */
  looseEndHands: records(
    { set: { looseEnd: text(80), to: textOrNull(40), note: text(500) } },
    { keep: 'server' },
  ),
  /** What people are paid; no device has it. */
  staffPay: records(
    {
      set: {
        /** Minor units an hour. */
        wage: whole(),
        /** Percent of what they sold, without tax. */
        commission: text(12),
      },
    },
    { keep: 'server' },
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
      what: word<Act>(20),
      about: text(120),
      amount: wholeOrNull(),
    },
    { indexes: ['by', 'at'], keep: 'recent' },
  ),
} as const;

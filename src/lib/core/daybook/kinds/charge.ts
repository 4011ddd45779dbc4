import { z } from 'zod';
import { amountFromZero, day, kind, quantity, recordId } from '../kind';
import { CONSENT_WAYS } from './customer-consent';

export const UNITS = ['week', 'month', 'year'] as const;
export type Unit = (typeof UNITS)[number];

/** Priced anew each time, with the taxes that are in force then. */
const line = z.strictObject({
  name: z.string().trim().min(1).max(200),
  quantity: quantity.min(1),
  /** Minor units for one, as prices are shown on the shelf. */
  price: amountFromZero,
  /** Ids of taxes. */
  taxes: z.array(recordId).max(10),
});

/**
 * What a customer is charged again and again, until when, and how it is paid. The server makes an invoice of it on each
 * day of its schedule.
 */
export const chargeSet = kind(
  1,
  z
    .strictObject({
      id: recordId,
      customer: recordId,
      lines: z
        .array(line)
        .min(1)
        .max(50)
        .refine((lines) => lines.some(({ price }) => price > 0), 'an amount above nothing'),
      unit: z.enum(UNITS),
      every: z.int().min(1).max(99),
      /** The day from which the others are counted. */
      from: day,
      /** No day before this one: from when it began, or went on after it was halted. */
      notBefore: day,
      /** The last day on which it may be; null for ever. */
      until: day.nullable(),
      /** Where the customer is, for their invoices (ISO 3166-1). */
      country: z.string().regex(/^[A-Z]{2}$/, 'a country in two letters, such as GB'),
      /** The way to pay that the card on file is charged by; null where they pay when they are asked. */
      way: recordId.nullable(),
      /** How they agreed that it may be charged each time. */
      consent: z.enum(CONSENT_WAYS).nullable(),
      /** Each invoice is mailed to them when it is made. */
      isMailed: z.boolean(),
      isActive: z.boolean(),
    })
    .refine(({ from, until }) => until === null || from <= until, {
      path: ['until'],
      message: 'it does not end before it begins',
    })
    .refine(({ way, consent }) => (way === null) === (consent === null), {
      path: ['consent'],
      message: 'a card is charged with its owner’s consent',
    }),
  {},
  // What is noted may be personal, like their reference on an invoice.
  z.strictObject({ note: z.string().max(500), reference: z.string().max(40) }),
);

/** Of the card on file; empty where there is none by then. */
const last4 = z.union([z.literal(''), z.string().regex(/^\d{4}$/, 'the last four figures')]);

/** What one of these is about. */
const about = { invoice: recordId, charge: recordId, customer: recordId };

/** The server charged a card on file for an invoice, and the acquirer took it. */
export const chargePaid = kind(
  1,
  z.strictObject({
    ...about,
    /** By which the acquirer knows it. */
    payment: recordId,
    way: recordId,
    /** Minor units. */
    amount: amountFromZero.min(1),
    scheme: z.string().max(20),
    last4,
    approval: z.string().max(12),
    acquirer: z.string().max(64),
  }),
);

export const NOT_CHARGED = ['no card', 'expired', 'declined', 'halted', 'no acquirer'] as const;

/** It could not: nothing has come, and somebody must see to it. */
export const chargeFailed = kind(
  1,
  z.strictObject({
    ...about,
    payment: recordId,
    way: recordId,
    amount: amountFromZero.min(1),
    why: z.enum(NOT_CHARGED),
    /** In the acquirer's words; empty where nobody was asked. */
    says: z.string().max(120),
    last4,
  }),
);

/** Somebody has the server try again. */
export const chargeAgain = kind(1, z.strictObject(about));

/**
 * Ids of what the server makes of standing charges: the same for ever, so that after it was set back to an earlier day it
 * makes the same again and devices take it once; and with a secret in them, so that nobody writes under one before.
 */
import { createHmac } from 'node:crypto';
import type { ChargeIds } from '../../core/charge/due-charge';
import { outsideId } from '../../core/daybook/outside-id';

export const ownId = (secret: string, business: string, ...what: readonly string[]): string =>
  outsideId(
    business,
    'standing charge',
    createHmac('sha256', Buffer.from(secret, 'hex')).update(what.join('\n')).digest('hex'),
  );

/** @param day Of its schedule, ISO date. */
export function chargeIds(
  secret: string,
  business: string,
  charge: string,
  day: string,
): ChargeIds {
  const of = (what: string): string => ownId(secret, business, what, charge, day);
  return { invoice: of('invoice'), numbered: of('numbered'), asked: of('asked') };
}

/** @param attempt The entry that asks for it; empty for the first time. */
export const paymentId = (
  secret: string,
  business: string,
  invoice: string,
  attempt: string,
): string => ownId(secret, business, 'payment', invoice, attempt);

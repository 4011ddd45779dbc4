/** A card payment of a device, carried unless it is said otherwise. */
import type { CardPayment } from '../payment/card-state';
import { idOf } from './made-up-business';

export const DEVICE = idOf(5, 1);
const EVENT = idOf(2, 1);
export const at = '2026-11-22T10:00:00.000Z';
export const card = (n: number, change: Partial<CardPayment> = {}): CardPayment => ({
  id: idOf(40, n),
  slip: idOf(9, 1),
  way: idOf(32, 1),
  event: EVENT,
  device: DEVICE,
  by: null,
  at,
  amount: 1000,
  askedStamp: `stamp-${String(n)}`,
  takenState: 'deferred',
  scheme: 'Visa',
  last4: '4471',
  clears: 1000,
  customer: null,
  sealed: `sealed-${String(n)}`,
  voice: '',
  takenStamp: 'x',
  isReversed: false,
  reversedStamp: '',
  decision: '',
  decidedAmount: 0,
  decidedBy: '',
  decidedOn: '',
  decidedStamp: '',
  state: '',
  resultAmount: 0,
  approval: '',
  acquirer: '',
  reason: '',
  expires: '',
  resultAt: '',
  resultStamp: '',
  ...change,
});

/** What sales in tests are rung up with, where a test does not say otherwise. */
import type { SlipTax } from '../pricing/slip';
import type { PaidPart } from '../slip/open-slip';
import type { Pricing } from '../slip/pricing';
import { EVENT, pricing, TAX } from './made-up-business';

/** Shelf prices include tax, rounded once for the sale; one price for all, and nothing on top. */
export const PRICING: Pricing = pricing;
export const VAT: SlipTax = { id: TAX, name: 'VAT', rate: '20' };
export const AT_EVENT = { id: EVENT, timeZone: 'Europe/London' } as const;

/** A card that was approved at the reader. */
export const CARD: NonNullable<PaidPart['card']> = {
  scheme: 'Visa',
  last4: '4471',
  entry: 'tap',
  state: 'captured',
  approval: '440120',
  acquirer: 'a-1',
  sealed: '',
  expires: '',
  voice: '',
  isOverLimit: false,
  isSigned: false,
};

/** A made-up business with its event, goods and people, for the property tests. */
import type { Draft } from '../daybook/chain';
import { privateDraft, type BodyOf } from '../daybook/kinds';
import type { Row } from '../books/tables';
import { PLAIN_ITEM } from '../goods/plain-item';
import { CASH_WAY, type WayToPay } from '../payment/ways';
import type { Right } from '../people/rights';

/** UUIDs that can be told apart at a glance: `idOf(7, 3)` ends in …0007-…0003. */
export const idOf = (group: number, n: number): string =>
  `00000000-0000-7000-8000-${group.toString(16).padStart(4, '0')}${n.toString(16).padStart(8, '0')}`;

export const BUSINESS = idOf(1, 1);
export const EVENT = idOf(2, 1);
export const TAX = idOf(3, 1);
export const DRAWER = idOf(4, 1);
export const LIST = idOf(50, 1);
export const COUNT = idOf(51, 1);
export const SUPPLIER = idOf(52, 1);
export const deviceId = (n: number): string => idOf(5, n);
export const itemId = (n: number): string => idOf(6, n);

export const pricing = {
  currency: 'GBP',
  pricesIncludeTax: true,
  taxRounding: 'sale',
  cashStep: 1,
  typedSide: 'cash',
  uplift: '0',
  service: null,
} as const;
/** A card on a terminal of its own, which costs extra. */
export const CARD_WAY: WayToPay = {
  ...CASH_WAY,
  id: idOf(32, 9),
  setStamp: 'x',
  name: 'Card',
  sort: 1,
  method: 'own',
  side: 'card',
  surchargeRate: '1.8',
  opensDrawer: false,
  givesChange: false,
};
export const tax = {
  id: TAX,
  name: 'VAT',
  rate: '20',
  level: 'country',
  on: [],
  sort: 1,
  isActive: true,
} as const;

export const item = (n: number, price: number): Row<'items'> => ({
  ...PLAIN_ITEM,
  id: itemId(n),
  setStamp: 'x',
  name: `Thing ${String(n)}`,
  code: `T${String(n)}`,
  barcodes: [`00${String(n)}`],
  price,
  taxes: [TAX],
  cost: 123_456,
  low: 2000,
});

export const personId = (n: number): string => idOf(7, n);

export const customerId = (n: number): string => idOf(8, n);

/** A customer of this name, of whom more is known. */
export const customerDraft = (n: number, name: string, newId: () => string): Draft => {
  const body = { id: customerId(n), discount: '0', terms: 0, creditLimit: 0, isActive: true };
  const who = {
    name,
    email: `${name.toLowerCase()}@green.example`,
    phone: '01632 960123',
    company: '',
    address: '3 Sluice Lane',
    taxNumber: '',
    note: '',
  };
  return privateDraft('customer.set', newId(), body, 'sixteen-letters-', who);
};

/** A helper with these rights. */
export const personBody = (n: number, rights: readonly Right[]): BodyOf<'staff.set'> => ({
  id: personId(n),
  name: `Person ${String(n)}`,
  role: 'helper',
  isActive: true,
  rights: [...rights],
  discountUpTo: '5',
  // The third has none.
  pin: n === 3 ? null : { hash: n.toString(16).padStart(64, '0'), iterations: 1000, salt: 'salt' },
});

export function eventBody(name: string) {
  return {
    id: EVENT,
    name,
    short: name,
    organiser: '',
    place: '',
    pitch: '14',
    series: null,
    days: [{ date: '2026-11-22', opens: '09:00', closes: '16:00' }],
    timeZone: 'Europe/London',
    stripe: '#1c684c',
    cloth: '#fffaf0',
    notes: '',
  };
}

/** When the first entry is written, about. */
export const START = Date.UTC(2026, 10, 22, 9);

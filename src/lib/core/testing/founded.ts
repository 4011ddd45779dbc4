/** A business that is set up as the sales of tests assume, with people: from then on everything is judged. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import type { Right, Role } from '../people/rights';
import { type DeviceWriter } from './arbitrary-daybook';
import {
  CARD_WAY,
  DRAWER,
  EVENT,
  eventBody,
  item,
  personBody,
  pricing,
  TAX,
} from './made-up-business';

export const BUSINESS_BODY = {
  ...pricing,
  name: 'Green',
  locale: 'en-GB',
  timeZone: 'Europe/London',
  groups: [],
  tips: null,
  carry: { perPayment: 6000, perDevice: 10_000, hours: 24 },
  signAbove: null,
  receiptHead: '',
  receiptFoot: '',
  lockAfter: 0,
  forgetAfter: 0,
} as const;

export const person = (
  { newId }: Pick<DeviceWriter, 'newId'>,
  n: number,
  role: Role,
  rights: readonly Right[] = [],
): Draft => draft('staff.set', newId(), null, { ...personBody(n, rights), role });

/** Goods as `DeviceWriter.sale` sells them: the nth costs n × 105. */
export function goods({ newId }: Pick<DeviceWriter, 'newId'>, n: number, price = n * 105): Draft {
  const { setStamp: _stamp, ...fields } = item(n, price);
  return draft('item.set', newId(), null, { ...fields, taxes: [TAX] });
}

/** Person 1 owns it, person 2 leads (and may what leads may), person 3 helps. */
export function foundedDrafts(writer: Pick<DeviceWriter, 'newId'>): readonly Draft[] {
  const { newId } = writer;
  const { setStamp: _stamp, ...way } = CARD_WAY;
  const card = { ...way, method: 'own', side: 'card' } as const;
  return [
    person(writer, 1, 'owner'),
    draft('business.set', newId(), null, BUSINESS_BODY),
    person(writer, 2, 'lead', ['price.change', 'discount.over', 'refund', 'sale.void', 'cash.out']),
    person(writer, 3, 'helper', ['stock.move']),
    draft('tax.set', newId(), null, {
      id: TAX,
      name: 'VAT',
      rate: '20',
      level: 'country',
      on: [],
      sort: 1,
      isActive: true,
    }),
    ...[1, 2, 3, 4].map((n) => goods(writer, n)),
    draft('way.set', newId(), null, card),
    draft('event.set', newId(), EVENT, eventBody('Green')),
    draft('drawer.opened', DRAWER, EVENT, {
      name: 'Tin',
      float: 5000,
      counts: [{ value: 1000, count: 5 }],
    }),
  ];
}

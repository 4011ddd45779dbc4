/** Every kind of entry there is. docs/architecture.md says how to add one. */
import type { z } from 'zod';
import type { Draft } from '../chain';
import type { Entry } from '../entry';
import { businessSet } from './business-set';
import { deviceSet } from './device-set';
import { drawerCounted } from './drawer-counted';
import { drawerOpened } from './drawer-opened';
import { eventSet } from './event-set';
import { eventStage } from './event-stage';
import { itemSet } from './item-set';
import { paymentTaken } from './payment-taken';
import { saleRung } from './sale-rung';
import { staffSet } from './staff-set';
import { stockMoved } from './stock-moved';
import { tableSet } from './table-set';
import { taxSet } from './tax-set';

export const kinds = {
  'business.set': businessSet,
  'tax.set': taxSet,
  'item.set': itemSet,
  'table.set': tableSet,
  'staff.set': staffSet,
  'device.set': deviceSet,
  'event.set': eventSet,
  'event.stage': eventStage,
  'drawer.opened': drawerOpened,
  'drawer.counted': drawerCounted,
  'stock.moved': stockMoved,
  'sale.rung': saleRung,
  'payment.taken': paymentTaken,
} as const;

export type Kind = keyof typeof kinds;
export type BodyOf<K extends Kind> = z.infer<(typeof kinds)[K]['body']>;
/** An entry of a known kind whose body has been checked and brought up to date. */
export type EntryOf<K extends Kind> = Omit<Entry, 'kind' | 'body'> & {
  readonly kind: K;
  readonly body: BodyOf<K>;
};
export type KnownEntry = { [K in Kind]: EntryOf<K> }[Kind];

export const isKind = (text: string): text is Kind => Object.hasOwn(kinds, text);

/** A draft of a known kind; the types say what its body must hold. */
export function draft<K extends Kind>(
  kind: K,
  id: string,
  event: string | null,
  body: BodyOf<K>,
): Draft {
  return { id, kind, v: kinds[kind].v, event, body: body };
}

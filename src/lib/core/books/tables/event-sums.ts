/** Sums of an event: a device keeps those of recent ones. */
import { sumsBy } from '../sum-tables';
import { id, text, whole } from '../table-spec';

const ofEvents = { indexes: ['event'], keep: 'recent' } as const;

export const eventSumTables = {
  eventTotals: sumsBy('eventTotals', { event: id() }),
  eventPaidIn: sumsBy('eventPaidIn', { event: id() }),
  eventItems: sumsBy('eventItems', { event: id(), item: id() }, ofEvents),
  eventHours: sumsBy('eventHours', { event: id(), day: text(10), hour: whole() }, ofEvents),
  eventTaxes: sumsBy('eventTaxes', { event: id(), tax: id(), rate: text(12) }, ofEvents),
  /** Only the server settles events. */
  eventAccounts: sumsBy(
    'eventAccounts',
    { event: id(), account: text(60) },
    { indexes: ['event'], keep: 'server' },
  ),
  eventTips: sumsBy('eventTips', { event: id(), seller: id() }, ofEvents),
  eventWays: sumsBy('eventWays', { event: id(), way: text(40) }, ofEvents),
} as const;

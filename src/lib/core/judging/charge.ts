/** Standing charges: of a customer, by a way and with taxes that there are; what becomes of them only the server says. */
import type { EntryOf, KnownEntry } from '../daybook/kinds';
import { daysAfter } from '../event/event-days';
import type { Evidence } from './evidence';
import type { Doubt } from './verdict';

/** So long ago one may have begun that arrives: a device can have been out of touch, and no more is caught up with. */
const DAYS_BACK = 366;

export function judgeCharge(
  { body, stamp }: EntryOf<'charge.set'>,
  evidence: Evidence,
): Doubt | null {
  const { history, books, arrival } = evidence;
  const { id, customer, way, lines, notBefore } = body;
  if (!history.knows('customer.set', customer)) return { code: 'charge/customer', found: customer };
  const known = books.row('charges', id);
  if (known !== undefined && known.setStamp !== '' && known.customer !== customer)
    return { code: 'charge/customer', found: customer, wanted: known.customer };
  const isOfCards =
    way === null ||
    history
      .inForce('way.set', way, stamp)
      .some(({ method }) => method === 'card' || method === 'keyed');
  if (!isOfCards) return { code: 'charge/way', found: way };
  const strange = lines.flatMap(({ taxes }) => taxes).find((tax) => !history.knows('tax.set', tax));
  if (strange !== undefined) return { code: 'charge/tax', found: strange };
  const first = daysAfter(new Date(arrival).toISOString().slice(0, 10), -DAYS_BACK);
  return notBefore < first ? { code: 'charge/past', found: notBefore, wanted: first } : null;
}

/** Of an invoice that a card was to pay and has not: once for each time that it failed. */
export function judgeAgain(
  { id, body }: EntryOf<'charge.again'>,
  { books }: Evidence,
): Doubt | null {
  const { invoice: of, charge, customer } = body;
  const invoice = books.row('invoices', of);
  if (invoice?.sourceIs !== 'charge' || invoice.source !== charge || invoice.customer !== customer)
    return { code: 'charge/unknown', found: of };
  const tried = books.where('chargeCards', 'invoice', of).filter((each) => each.id !== id);
  const count = (is: 'failed' | 'again'): number => tried.filter((each) => each.is === is).length;
  return count('failed') > count('again') ? null : { code: 'charge/again', found: of };
}

/** Whether it says what the server alone can know: what it made, and what the acquirer took. */
export const isOfServer = ({ kind, body }: KnownEntry): boolean =>
  kind === 'charge.paid' ||
  kind === 'charge.failed' ||
  (kind === 'invoice.made' && body.of.is === 'charge');

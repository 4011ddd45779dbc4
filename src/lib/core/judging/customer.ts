/** Records of customers that are joined: of people that there are, whom nobody forgot, and not in a circle. */
import type { EntryOf } from '../daybook/kinds';
import type { Evidence } from './evidence';
import type { Doubt } from './verdict';

export function judgeCustomerJoined(
  { body }: EntryOf<'customer.joined'>,
  { history, books, joined }: Evidence,
): Doubt | null {
  const { customer, into } = body;
  const about = into === null ? [customer] : [customer, into];
  const unknown = about.find((id) => !history.knows('customer.set', id));
  if (unknown !== undefined) return { code: 'customer/unknown', found: unknown };
  // Taking apart says nothing of anybody.
  if (into === null) return null;
  const forgotten = about.find((id) => books.row('customers', id)?.isErased === true);
  if (forgotten !== undefined) return { code: 'customer/forgotten', found: forgotten };
  return joined.wayOf(into).includes(customer) ? { code: 'customer/circle', found: into } : null;
}

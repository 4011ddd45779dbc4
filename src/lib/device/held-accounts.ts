/** Accounts that somebody holds, as this device knows them. */
import type { Row } from '../core/books/tables';
import type { CustomerHolds } from '../core/held/customer-holds';
import { heldParts } from '../core/held/held-account';
import type { Balances } from '../core/held/overspends';
import { accountFor, type HeldFacts, type Spender } from '../core/held/spend';
import { isOpen } from '../core/order/order-state';
import { sum } from '../core/money/units';
import type { DeviceDatabase } from './database';
import { ordersOf } from './orders';
import { pointsOf } from './points';

/** What is known of the account that a way would be paid from; of none that is named, nothing. */
export async function heldFacts(
  { books }: DeviceDatabase,
  method: string,
  who: Spender,
): Promise<HeldFacts> {
  const account = accountFor(method, who);
  const parts = account === null ? null : heldParts(account);
  if (account === null || parts === null)
    return { balance: 0, sold: [], state: undefined, creditLimit: 0 };
  const isVoucher = parts.head === 'voucher';
  const [sum, sold, state, customer] = await Promise.all([
    books.heldSums.get(account),
    isVoucher ? books.vouchers.where('number').equals(parts.id).toArray() : [],
    isVoucher ? books.voucherStates.get(parts.id) : undefined,
    isVoucher ? undefined : books.customers.get(parts.id),
  ]);
  return {
    ...{ balance: sum?.amount ?? 0, sold, state },
    creditLimit: customer === undefined ? 0 : customer.creditLimit,
  };
}

export async function customerHolds(
  db: DeviceDatabase,
  customer: Pick<Row<'customers'>, 'id'>,
): Promise<CustomerHolds> {
  const { books } = db;
  const [owed, credit, row, orders, points] = await Promise.all([
    books.heldSums.get(`customer:${customer.id}`),
    books.heldSums.get(`credit:${customer.id}`),
    books.customers.get(customer.id),
    ordersOf(db, customer.id, ''),
    pointsOf(db, customer),
  ]);
  const kept = orders.filter((now) => isOpen(now) && now.order.sort !== 'quote');
  return {
    points,
    orders: kept.length,
    deposits: sum(kept.map(({ deposit }) => deposit)),
    owes: owed?.amount ?? 0,
    credit: -(credit?.amount ?? 0),
    limit: row === undefined ? 0 : row.creditLimit,
  };
}

/** What stands on the accounts that lines of a sale had paid in on. */
export async function balancesOf(
  { books }: DeviceDatabase,
  lines: readonly Pick<Row<'saleLines'>, 'account'>[],
): Promise<Balances> {
  const accounts = lines.flatMap(({ account }) => account ?? []);
  const sums = accounts.length === 0 ? [] : await books.heldSums.bulkGet(accounts);
  return new Map(sums.flatMap((sum) => (sum === undefined ? [] : [[sum.account, sum.amount]])));
}

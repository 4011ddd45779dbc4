/** Accounts that somebody holds, as this device knows them. */
import type { Row } from '../core/books/tables';
import { customerIn, NOBODY_JOINED, type Joined } from '../core/customer/joined';
import type { CustomerHolds } from '../core/held/customer-holds';
import { heldParts } from '../core/held/held-account';
import type { Balances } from '../core/held/overspends';
import { accountFor, type HeldFacts, type Spender } from '../core/held/spend';
import { isOpen } from '../core/order/order-state';
import { sum } from '../core/money/units';
import { joinedIn, personOf } from './customer-records';
import type { DeviceDatabase } from './database';
import { ordersOf } from './orders';
import { pointsOf } from './points';

/** What is known of the account that a way would be paid from; of none that is named, nothing. */
export async function heldFacts(
  db: DeviceDatabase,
  method: string,
  who: Spender,
): Promise<HeldFacts> {
  const account = accountFor(method, who);
  const parts = account === null ? null : heldParts(account);
  if (account === null || parts === null)
    return { balance: 0, sold: [], state: undefined, creditLimit: 0 };
  const { books } = db;
  const isVoucher = parts.head === 'voucher';
  const whose = customerIn(account);
  const [person, sold, state] = await Promise.all([
    whose === null ? null : personOf(db, whose),
    isVoucher ? books.vouchers.where('number').equals(parts.id).toArray() : [],
    isVoucher ? books.voucherStates.get(parts.id) : undefined,
  ]);
  const customer = person?.customer;
  return {
    ...{ balance: await standsOn(db, account, person?.joined), sold, state },
    creditLimit: customer === undefined ? 0 : customer.creditLimit,
  };
}

export async function customerHolds(
  db: DeviceDatabase,
  customer: Pick<Row<'customers'>, 'id'>,
): Promise<CustomerHolds> {
  const person = await personOf(db, customer.id);
  const { joined, customer: row } = person;
  const [owes, credit, orders, points] = await Promise.all([
    standsOn(db, `customer:${customer.id}`, joined),
    standsOn(db, `credit:${customer.id}`, joined),
    ordersOf(db, person.records, ''),
    pointsOf(db, person.records),
  ]);
  const kept = orders.filter((now) => isOpen(now) && now.order.sort !== 'quote');
  return {
    points,
    orders: kept.length,
    deposits: sum(kept.map(({ deposit }) => deposit)),
    ...{ owes, credit: 0 - credit },
    limit: row === undefined ? 0 : row.creditLimit,
  };
}

/** What stands on an account, and on those that are one with it. Minor units. */
export async function standsOn(
  db: DeviceDatabase,
  account: string,
  known?: Joined,
): Promise<number> {
  const whose = customerIn(account);
  const joined = known ?? (whose === null ? NOBODY_JOINED : (await personOf(db, whose)).joined);
  const rows = await db.books.heldSums.bulkGet([...joined.accounts(account)]);
  return sum(rows.map((row) => row?.amount ?? 0));
}

/** What stands on the accounts that lines of a sale had paid in on, each with those that are one with it. */
export async function balancesOf(
  db: DeviceDatabase,
  lines: readonly Pick<Row<'saleLines'>, 'account'>[],
): Promise<Balances> {
  const accounts = [...new Set(lines.flatMap(({ account }) => account ?? []))];
  if (accounts.length === 0) return new Map();
  const joined = await joinedIn(
    db,
    accounts.flatMap((account) => customerIn(account) ?? []),
  );
  const own = [...new Set(accounts.map((account) => joined.account(account)))];
  const sums = await Promise.all(own.map((account) => standsOn(db, account, joined)));
  return new Map(
    accounts.map((account) => [account, sums[own.indexOf(joined.account(account))] ?? 0]),
  );
}

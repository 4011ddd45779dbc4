/** Run in a page: vouchers and customers by the thousand, and how long one of them is looked up. */
import { DeviceDatabase } from '../../src/lib/device/database';
import { painted } from '../../src/lib/ui/frame/painted';
import { customerHolds, heldFacts } from '../../src/lib/device/held-accounts';

const ROUNDS = 41;
const BLANK = { event: null, device: '', by: null, at: '2026-11-22T10:00:00.000Z' };

async function fillVouchers(from: number, to: number): Promise<void> {
  const db = new DeviceDatabase();
  const numbers = Array.from({ length: to - from }, (_, n) => `BENCH${String(from + n)}`);
  await db.books.vouchers.bulkPut(
    numbers.map((number) => ({
      ...{ ...BLANK, id: `${number}:0`, number, value: 1000, until: '', kept: null },
      ...{ sale: null, saleNumber: '', customer: null },
    })),
  );
  await db.books.heldSums.bulkPut(
    numbers.map((number) => ({ account: `voucher:${number}`, amount: -1000 })),
  );
  db.close();
}

async function fillCustomers(from: number, to: number): Promise<void> {
  const db = new DeviceDatabase();
  const [like] = await db.books.customers.toArray();
  if (like === undefined) throw new Error('the demo has customers');
  const ids = Array.from({ length: to - from }, (_, n) => customerId(from + n));
  await db.books.customers.bulkPut(ids.map((id) => ({ ...like, id })));
  await db.books.heldSums.bulkPut(ids.map((id) => ({ account: `customer:${id}`, amount: 500 })));
  // Each has something kept, with a deposit.
  const [order] = await db.books.orders.toArray();
  if (order === undefined) throw new Error('the demo has orders');
  await db.books.orders.bulkPut(
    ids.map((customer) => ({ ...order, customer, id: orderOf(customer), sort: 'kept' })),
  );
  await db.books.heldSums.bulkPut(
    ids.map((id) => ({ account: `deposit:${orderOf(id)}`, amount: -300 })),
  );
  // And points, and something spent towards each reward.
  const rewards = await db.books.rewards.toArray();
  await db.books.pointSums.bulkPut(
    ids.flatMap((id) =>
      ['points', ...rewards.map((reward) => reward.id)].map((item) => ({
        ...{ account: `points:${id}`, item, quantity: 120 },
      })),
    ),
  );
  db.close();
}

const customerId = (n: number): string => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;

const orderOf = (customer: string): string => customer.replace('-8000-', '-8001-');

/** @param among How many there are. @returns Milliseconds of each look-up. */
async function timeVouchers(among: number): Promise<readonly number[]> {
  const db = new DeviceDatabase();
  const times: number[] = [];
  for (let round = -5; round < ROUNDS; round += 1) {
    const reference = `bench ${String((round + 5) * Math.floor(among / 50))}`;
    const began = performance.now();
    const { balance } = await heldFacts(db, 'voucher', { customer: null, reference });
    if (round >= 0) times.push(performance.now() - began);
    if (balance !== -1000) throw new Error(`${reference} is not there`);
  }
  db.close();
  return times;
}

/** A name is written, and what they have beside it, until both are painted; and the name alone. */
async function timeBeside(among: number): Promise<{ beside: number[]; trivial: number[] }> {
  const db = new DeviceDatabase();
  const text = document.body.appendChild(document.createElement('p'));
  const [beside, trivial]: [number[], number[]] = [[], []];
  for (let round = -5; round < ROUNDS; round += 1) {
    const id = customerId((round + 5) * Math.floor(among / 50));
    text.textContent = '';
    await painted();
    const began = performance.now();
    const { owes, deposits, points } = await customerHolds(db, { id });
    text.textContent = `${id} owes ${String(owes)}`;
    await painted();
    const took = performance.now() - began;
    text.textContent = '';
    await painted();
    const again = performance.now();
    text.textContent = id;
    await painted();
    if (round < 0) continue;
    beside.push(took);
    trivial.push(performance.now() - again);
    if (owes !== 500 || deposits !== 300 || points?.points !== 120)
      throw new Error(`${id} is not there`);
  }
  db.close();
  return { beside, trivial };
}

const heldHarness = { fillVouchers, fillCustomers, timeVouchers, timeBeside };
export interface WithHeld {
  readonly heldHarness: typeof heldHarness;
}
Object.assign(globalThis, { heldHarness });

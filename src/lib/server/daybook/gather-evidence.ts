/** What the books say of whatever a batch of entries speaks of, for the judge (core/judging). */
import type { Transaction, WhereOptions } from 'sequelize';
import { entrySchema } from '../../core/daybook/entry';
import type { EntryOf, KnownEntry } from '../../core/daybook/kinds';
import { readEntry } from '../../core/daybook/read-entry';
import { Evidence } from '../../core/judging/evidence';
import { isJudged, type Judged } from '../../core/judging/history';
import type { Row, TableName } from '../../core/books/tables';
import { Joined } from '../../core/customer/joined';
import { recordsAmong } from '../books/customer-records';
import { EXCHANGE } from '../../core/payment/methods';
import type { BookReader } from '../books/read-books';
import { secretOf, sealOf } from '../invoices/number-seal';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { referencesOf, type References } from './references';
import { storedEntry, type StoredText } from './stored-entry';

/** Set-up that stands in the row of the business. */
type OfBusiness = 'business.points' | 'business.invoicing' | 'business.reminders';
const isOfBusiness = (kind: Judged): kind is OfBusiness =>
  kind === 'business.points' || kind === 'business.invoicing' || kind === 'business.reminders';

/** The tables that set-up of a kind stands in. */
const TABLE_OF: Readonly<Record<Exclude<Judged, OfBusiness>, TableName>> = {
  'business.set': 'businesses',
  'tax.set': 'taxes',
  'way.set': 'ways',
  'item.set': 'items',
  'event.set': 'events',
  'customer.set': 'customers',
  'place.set': 'places',
  'reward.set': 'rewards',
};

export interface Gathering {
  readonly database: Database;
  readonly books: BookReader;
  readonly business: string;
  readonly transaction: Transaction;
}

/**
 * The evidence for entries of one device. Set-up is as it is now; `deepen` adds how it was, which is only
 * looked up where something does not fit.
 * @param isServer Whether the server wrote them itself: it rings nothing up and counts no drawers.
 */
export async function gatherEvidence(
  gathering: Gathering,
  device: string,
  entries: readonly KnownEntry[],
  arrival: number,
  isServer = false,
): Promise<Evidence> {
  const { database, business, transaction } = gathering;
  const [devices, people] = await Promise.all([
    select<{ device: string; number: number; seq: number; hash: string } & Numbers>(
      database,
      'SELECT device, number, seq, hash, lastSale, lastRead FROM access_devices WHERE business = ?',
      [business],
      transaction,
    ),
    peopleOf(gathering),
  ]);
  const own = devices.find((each) => each.device === device);
  const evidence = new Evidence(
    business,
    {
      id: device,
      number: own?.number ?? 0,
      lastSale: own?.lastSale ?? (isServer ? 0 : await lastNumber(gathering, device, 'sale.rung')),
      lastRead:
        own?.lastRead ?? (isServer ? 0 : await lastNumber(gathering, device, 'drawer.counted')),
    },
    new Map(devices.map(({ device: id, number }) => [id, number])),
    arrival,
  );
  evidence.isServer = isServer;
  evidence.heads = new Map(
    devices.flatMap(({ device: id, seq, hash }) => (seq > 0 ? [[id, { seq, hash }]] : [])),
  );
  for (const each of people) evidence.people.add(each);
  // Being founded: nothing is judged until somebody is there.
  const hasPeople = entries.some(({ kind }) => kind === 'staff.set');
  if (evidence.people.isEmpty && !hasPeople) return evidence;
  const references = referencesOf(entries);
  await gatherCustomers(gathering, references, evidence);
  await gatherVoucherWays(gathering, references, evidence);
  await Promise.all([
    gatherSetUp(gathering, references, evidence),
    gatherRows(gathering, references, device, evidence),
  ]);
  return evidence;
}

interface Numbers {
  readonly lastSale: number | null;
  readonly lastRead: number | null;
}

async function lastNumber(
  { database, business, transaction }: Gathering,
  device: string,
  kind: 'sale.rung' | 'drawer.counted',
): Promise<number> {
  const [row] = await select<{ last: string | null }>(
    database,
    "SELECT MAX(CAST(JSON_VALUE(entry, '$.body.number') AS UNSIGNED)) AS last FROM daybook_entries " +
      'WHERE business = ? AND device = ? AND kind = ?',
    [business, device, kind],
    transaction,
  );
  return Number(row?.last ?? 0);
}

/** All that says who there is, and who may do what, in the order in which it arrived. */
async function peopleOf({
  database,
  business,
  transaction,
}: Gathering): Promise<readonly (EntryOf<'staff.set'> | EntryOf<'pin.set'>)[]> {
  const rows = await select<{ entry: string; held: string }>(
    database,
    "SELECT entry, held FROM daybook_entries WHERE business = ? AND kind IN ('staff.set', 'pin.set') " +
      "AND state = 'applied' ORDER BY position",
    [business],
    transaction,
  );
  return rows.flatMap((row) => {
    const entry = known(row);
    return entry?.kind === 'staff.set' || entry?.kind === 'pin.set' ? [entry] : [];
  });
}

/** Customers, and whatever else is of the same people: what one of their records has is theirs on all. */
async function gatherCustomers(
  { books, business, transaction }: Gathering,
  { setUp, held, points }: References,
  { history, books: evidence }: Evidence,
): Promise<void> {
  const wanted = setUp['customer.set'];
  if (wanted.size === 0) return;
  const rows = await recordsAmong(books, business, wanted, transaction);
  for (const row of rows)
    if (row.setStamp !== '') history.add('customer.set', row.id, row.setStamp, row);
  evidence.put('customers', rows);
  const joined = new Joined(rows);
  if (joined.isEmpty) return;
  for (const account of [...held]) for (const each of joined.accounts(account)) held.add(each);
  for (const id of [...points]) for (const each of joined.records(id)) points.add(each);
}

/** How vouchers are sold and spent: no entry names the way that they are sold by. */
async function gatherVoucherWays(
  { books, business, transaction }: Gathering,
  { setUp, vouchers }: References,
  evidence: Evidence,
): Promise<void> {
  if (vouchers.size === 0) return;
  const rows = await books.rows(business, 'ways', { method: 'voucher' }, transaction);
  evidence.books.put('ways', rows);
  for (const { id, purpose } of rows) {
    setUp['way.set'].add(id);
    if (purpose !== '') setUp['tax.set'].add(purpose);
  }
}

async function gatherSetUp(
  { books, business, transaction }: Gathering,
  { setUp }: References,
  { history }: Evidence,
): Promise<void> {
  const all = Object.entries(setUp) as [Judged, ReadonlySet<string>][];
  await Promise.all(all.map(([kind, ids]) => gatherKind(kind, ids)));

  async function gatherKind(kind: Judged, ids: ReadonlySet<string>): Promise<void> {
    // Customers are gathered with all their records.
    if (isOfBusiness(kind) || kind === 'customer.set') return;
    if (ids.size === 0 && kind !== 'business.set') return;
    const where = kind === 'business.set' ? { id: business } : { id: [...ids] };
    const rows = await books.rows(business, TABLE_OF[kind], where, transaction);
    for (const row of rows as unknown as readonly { id: string; setStamp: string }[]) {
      // The row has the fields of the body, and stamps beside them.
      if (row.setStamp !== '') history.add(kind, row.id, row.setStamp, row as never);
    }
    if (kind === 'business.set') addOfBusiness(rows as unknown as readonly Row<'businesses'>[]);
  }

  function addOfBusiness(rows: readonly Row<'businesses'>[]): void {
    for (const row of rows) {
      const { pointsRule, pointsStamp, invoicing, invoicingStamp } = row;
      const { reminders, remindersStamp } = row;
      if (remindersStamp !== '')
        history.add('business.reminders', business, remindersStamp, { steps: [...reminders] });
      if (pointsRule !== null) history.add('business.points', business, pointsStamp, pointsRule);
      if (invoicing !== null)
        history.add('business.invoicing', business, invoicingStamp, invoicing);
    }
  }
}

async function gatherRows(
  { books, business, transaction }: Gathering,
  references: References,
  device: string,
  evidence: Evidence,
): Promise<void> {
  const put = async <T extends TableName>(
    table: T,
    field: keyof Row<T> & string,
    ids: ReadonlySet<string>,
    more: WhereOptions = {},
  ): Promise<readonly Row<T>[]> => {
    if (ids.size === 0) return [];
    const where = { ...(more as object), [field]: [...ids] };
    const rows = await books.rows(business, table, where, transaction);
    evidence.books.put(table, rows);
    return rows;
  };
  const { sales, payments, drawers, cards, devices, settled, asksAboutCarried } = references;
  const accounts = new Set([...references.points].map((customer) => `points:${customer}`));
  // They wait for one another in the database alone.
  await Promise.all([
    gatherSales(),
    put('charges', 'id', references.charges),
    put('chargeCards', 'charge', references.charges),
    put('lists', 'id', references.lists),
    put('listSums', 'list', references.moved),
    put('counts', 'id', references.counts),
    // Of a part that is given back it matters whether its sale stands.
    put('sales', 'slip', references.slipsOfReversed),
    put('drawers', 'id', drawers),
    put('drawerSums', 'drawer', drawers),
    put('drawerReads', 'drawer', drawers),
    put('eventAccounts', 'event', references.accountsOf),
    put('moneyCame', 'id', references.money),
    put('paidOut', 'id', references.money),
    put('moneyUndone', 'money', references.money),
    put('handedIn', 'event', references.handedInAt),
    put('bankAccounts', 'id', references.bankAccounts),
    put('bankLines', 'id', references.bankLines),
    put('bankJoins', 'money', references.money),
    put('cardPayments', 'id', cards),
    put('cardRefunds', 'id', references.refunds),
    put('cardRefunds', 'payment', references.refundsOf),
    gatherRefunds(references.refunds, evidence),
    put('heldSums', 'account', references.held),
    put('vouchers', 'number', references.vouchers),
    put('pointSums', 'account', accounts),
    put('pointStates', 'id', references.points),
    put('voucherStates', 'id', references.vouchers),
    put('orders', 'id', references.orders),
    put('orderSums', 'order', references.orders),
    put('ordersPaid', 'order', references.orders),
    put('devices', 'id', devices),
    asksAboutCarried
      ? put('cardPayments', 'device', new Set([device]), { state: '', takenState: 'deferred' })
      : [],
    gatherWriters(settled, evidence),
  ]);
  if (references.asksAboutOwnPrices)
    evidence.hasOwnPrices = await books.any(business, 'items', 'otherPrice', transaction);

  /** What sales are of, and what was done about them; some of it names more of them. */
  async function gatherSales(): Promise<void> {
    await gatherInvoices();
    const found = await put('sales', 'id', sales);
    await Promise.all([
      put('saleLines', 'sale', references.voided),
      put('voids', 'sale', references.voided),
      put('returns', 'sale', references.voided),
      put('returns', 'number', references.returnNumbers),
      put('refunds', 'number', references.returnNumbers),
      put('voidsUndone', 'sale', references.voided),
      put('corrections', 'sale', references.voided),
      references.refundDays.size > 0 ? gatherRefundDays() : null,
    ]);
    const parts = new Set([...payments, ...found.flatMap((sale) => sale.payments)]);
    const paid = await put('payments', 'id', parts);
    // Slips that goods which came back pay for: few are.
    const { exchanged } = references;
    for (const { way, slip } of paid) if (way === EXCHANGE) exchanged.add(slip);
    for (const { id } of await put('payments', 'slip', exchanged)) parts.add(id);
    await Promise.all([put('returns', 'forSlip', exchanged), put('reversals', 'payment', parts)]);
  }

  async function gatherRefundDays(): Promise<void> {
    await put('refunds', 'day', references.refundDays);
    await put('refunds', 'saleNumber', references.saleNumbers);
    await put('businesses', 'id', new Set([business]));
    const named = await put('sales', 'number', references.saleNumbers);
    const ids = new Set(named.map(({ id }) => id));
    await put('voids', 'sale', ids);
    await put('voidsUndone', 'sale', ids);
    await put('returns', 'sale', ids);
  }

  /** And of credit notes the sale that their invoice is of. */
  async function gatherInvoices(): Promise<void> {
    const { invoices, credited, invoicesOf, invoiceNumbers } = references;
    const about = [
      ...(await put('invoices', 'id', invoices)),
      ...(await put('invoices', 'source', invoicesOf)),
    ];
    for (const { id, sourceIs, source } of about) {
      if (!credited.has(id) || sourceIs !== 'sale' || source === null) continue;
      sales.add(source);
      references.voided.add(source);
    }
    await put('reminders', 'invoice', invoices);
    await put('invoices', 'credits', new Set(about.map(({ id }) => id)));
    if (invoiceNumbers.length === 0) return;
    const own = invoiceNumbers.map(({ invoice }) => invoice);
    const said = invoiceNumbers.map(({ series, n }) => [series, n]);
    const given = await select<{ invoice: string; series: string; n: string; number: string }>(
      books.database,
      'SELECT invoice, series, n, number FROM invoice_numbers WHERE business = ? ' +
        'AND (invoice IN (?) OR (series, n) IN (?))',
      [business, own, said],
      transaction,
    );
    evidence.invoiceNumbers = given.map((each) => ({ ...each, n: Number(each.n) }));
    const secret = await secretOf(books.database, business, transaction);
    if (secret === null) return;
    for (const each of invoiceNumbers)
      if (sealOf(secret, business, each) === each.seal) evidence.sealed.add(each.entry);
  }

  async function gatherRefunds(ids: ReadonlySet<string>, { refunds }: Evidence): Promise<void> {
    if (ids.size === 0) return;
    const rows = await select<{ refund: string; state: string }>(
      books.database,
      'SELECT refund, state FROM cards_refunded WHERE business = ? AND refund IN (?)',
      [business, [...ids]],
      transaction,
    );
    for (const { refund, state } of rows) refunds.set(refund, state);
  }

  async function gatherWriters(ids: ReadonlySet<string>, { writers }: Evidence): Promise<void> {
    if (ids.size === 0) return;
    const rows = await select<{ id: string; entry: string }>(
      books.database,
      'SELECT id, entry FROM daybook_entries WHERE business = ? AND id IN (?)',
      [business, [...ids]],
      transaction,
    );
    for (const { id, entry } of rows) writers.set(id, entrySchema.parse(JSON.parse(entry)).by);
  }
}

/** Adds what the set-up that an entry speaks of was before. */
export async function deepen(
  { database, business, transaction }: Gathering,
  entry: KnownEntry,
  { history, books }: Evidence,
): Promise<void> {
  const { setUp, vouchers } = referencesOf([entry]);
  if (vouchers.size > 0)
    for (const { id, method, purpose } of books.rows('ways')) {
      if (method !== 'voucher') continue;
      setUp['way.set'].add(id);
      if (purpose !== '') setUp['tax.set'].add(purpose);
    }
  for (const [kind, ids] of Object.entries(setUp) as [Judged, ReadonlySet<string>][]) {
    const isOfAll = kind === 'business.set' || isOfBusiness(kind);
    if (ids.size === 0 && !isOfAll) continue;
    const isOf = isOfAll ? '' : "AND JSON_VALUE(entry, '$.body.id') IN (?) ";
    const rows = await select<{ entry: string; held: string }>(
      database,
      `SELECT entry, held FROM daybook_entries WHERE business = ? AND kind = ? ${isOf}` +
        "AND state IN ('applied', 'doubted')",
      [business, kind, ...(isOfAll ? [] : [[...ids]])],
      transaction,
    );
    for (const row of rows) {
      const found = known(row);
      if (found !== null && isJudged(found.kind))
        history.take(found as Parameters<typeof history.take>[0]);
    }
  }
}

function known(row: StoredText): KnownEntry | null {
  const read = readEntry(storedEntry(row));
  return read.ok ? read.entry : null;
}

/**
 * The versions of the device's database: what each of them brought, and what becomes of rows that an older one
 * wrote. A new version is a line of its own at the end, and its upgrade is never changed afterwards.
 */
import type { Dexie, Transaction } from 'dexie';
import { deviceTables, tables } from '../core/books/tables';
import type { Field } from '../core/books/table-spec';
import { withoutPrivate } from '../core/daybook/chain';
import type { Entry } from '../core/daybook/entry';
import { rightsToBeginWith, withLaterRights, withSettling } from '../core/people/rights';

type Upgrade = (transaction: Transaction) => Promise<void>;

/** Each version after the first. */
const upgrades: readonly (readonly [version: number, upgrade: Upgrade])[] = [
  // Rights, PINs, the lock and `acts`.
  [2, rightsAndPins],
  // Customers, settlements, and what a device is given.
  [3, givenToDevices],
  // All that a slip can hold; ways to pay; signatures and cards on file.
  [4, fillUp],
  [5, fillUp],
  [6, fillUp],
  // Salted PINs and what was decided of held cards; what the acquirer calls a card is the server's alone.
  [7, inOrder(fillUp, forgetTokens)],
  // What only the server reads is let go of; what one person edits at once, and each stage, has its own stamp.
  [8, inOrder(fillUp, stampApart)],
  // Places, suppliers, lists of goods and counts, and rights to move, order and count stock.
  [9, inOrder(fillUp, rights(withLaterRights))],
  // Cash in between, what becomes of cash that was counted, and the right to settle events.
  [10, inOrder(fillUp, rights(withSettling))],
  // Goods that came back; that pay for others; accounts that somebody holds; orders of customers; points and
  // rewards; invoices; records of customers that are of one person; vouchers for goods of one tax; standing charges.
  ...[11, 12, 13, 14, 15, 16, 17, 18, 19].map((version) => [version, fillUp] as const),
];

/** Stores of older versions that there are no more. */
const GONE = { receiptAsks: null };

/** @param stores By table, its key and its indexes, as Dexie has them. */
export function declareVersions(db: Dexie, stores: Readonly<Record<string, string>>): void {
  // The stores come last: whenever any are named, those of all versions there are by then are read anew.
  for (const [version, upgrade] of upgrades) db.version(version).upgrade(upgrade);
  db.version(1).stores({ ...stores, ...GONE });
}

function inOrder(...steps: readonly Upgrade[]): Upgrade {
  return async (transaction) => {
    for (const step of steps) await step(transaction);
  };
}

async function rightsAndPins(transaction: Transaction): Promise<void> {
  const people = transaction.table<Record<string, unknown>>('staff');
  await people.toCollection().modify((row) => {
    row['rights'] ??= rightsToBeginWith(row['role']);
    row['discountUpTo'] ??= '0';
    row['pin'] ??= null;
  });
  const businesses = transaction.table<Record<string, unknown>>('businesses');
  await businesses.toCollection().modify((row) => void (row['lockAfter'] ??= 0));
}

async function givenToDevices(transaction: Transaction): Promise<void> {
  const devices = transaction.table<Record<string, unknown>>('devices');
  await devices.toCollection().modify((row) => {
    row['event'] ??= null;
    row['drawer'] ??= null;
  });
}

function rights(withMore: (rights: readonly string[]) => readonly string[]): Upgrade {
  return async (transaction) => {
    await transaction
      .table<{ rights: readonly string[] }>('staff')
      .toCollection()
      .modify((row) => void (row.rights = withMore(row.rights)));
  };
}

/** What fields were before there was a word for them, where that is not nothing. */
const INITIAL: Readonly<Record<string, unknown>> = {
  'tables.size': 'middle',
  'businesses.typedSide': 'cash',
  'businesses.uplift': '0',
  'items.isReturnable': true,
  'items.earnsPoints': true,
  'payments.wayName': 'Cash',
  'payments.method': 'cash',
  'payments.side': 'cash',
};

/** Gives every row the fields that there was no word for when it was written. */
async function fillUp(transaction: Transaction): Promise<void> {
  for (const name of deviceTables) {
    const fields = Object.entries<Field<unknown>>(tables[name].fields);
    await transaction
      .table<Record<string, unknown>>(name)
      .toCollection()
      .modify((row) => {
        for (const [field, spec] of fields)
          row[field] ??= INITIAL[`${name}.${field}`] ?? spec.initial;
      });
  }
}

/** What was set together until then was set by the same stamp. */
async function stampApart(transaction: Transaction): Promise<void> {
  await transaction
    .table<Record<string, unknown>>('businesses')
    .toCollection()
    .modify((row) => void (row['lockStamp'] = row['setStamp']));
  await transaction
    .table<Record<string, unknown>>('events')
    .toCollection()
    .modify((row) => {
      row['taxesStamp'] = row['waysStamp'] = row['setStamp'];
      const { stage, stageStamp } = row;
      delete row['stage'];
      delete row['stageStamp'];
      const reached = `${String(stage)}Stamp`;
      if (reached in row) row[reached] = stageStamp;
    });
}

/** Drops what the acquirer calls cards from rows and from entries; their chains stay good. */
async function forgetTokens(transaction: Transaction): Promise<void> {
  await transaction
    .table<Record<string, unknown>>('customers')
    .toCollection()
    .modify((row) => void delete row['cardToken']);
  await transaction
    .table<Record<string, unknown>>('staff')
    .toCollection()
    .modify((row) => {
      if (row['pinStamp'] === '') row['pinStamp'] = row['setStamp'];
      const pin = row['pin'] as { salt?: string } | null;
      if (pin !== null && pin.salt === undefined) row['pin'] = { ...pin, salt: '' };
    });
  for (const blocks of ['entries', 'received'])
    await transaction
      .table<{ entries: readonly Entry[] }>(blocks)
      .toCollection()
      .modify((block) => {
        block.entries = block.entries.map((entry) =>
          entry.kind === 'customer.card' && entry.v === 1 ? withoutPrivate(entry) : entry,
        );
      });
}

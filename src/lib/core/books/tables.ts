/** Every table of the books. Amounts are minor units, quantities thousandths, times ISO text. */
import type { RowOf } from './table-spec';
import { drawerTables } from './tables/drawers';
import { eventSumTables } from './tables/event-sums';
import { heldTables } from './tables/held';
import { listTables } from './tables/lists';
import { chargeTables } from './tables/charges';
import { invoiceTables } from './tables/invoices';
import { orderTables } from './tables/orders';
import { pointTables } from './tables/points';
import { paymentTables } from './tables/payments';
import { peopleTables } from './tables/people';
import { bankTables } from './tables/bank';
import { ledgerTables } from './tables/ledger';
import { settlingTables } from './tables/settling';
import { setUpTables } from './tables/set-up';
import { slipAndSaleTables } from './tables/slips-sales';
import { stockTables } from './tables/stock';

export const tables = {
  ...setUpTables,
  ...peopleTables,
  ...drawerTables,
  ...heldTables,
  ...pointTables,
  ...orderTables,
  ...invoiceTables,
  ...chargeTables,
  ...stockTables,
  ...listTables,
  ...slipAndSaleTables,
  ...paymentTables,
  ...eventSumTables,
  ...settlingTables,
  ...bankTables,
  ...ledgerTables,
} as const;

export type TableName = keyof typeof tables;
export type Row<T extends TableName> = RowOf<(typeof tables)[T]>;
export const tableNames = Object.keys(tables) as readonly TableName[];

/** The tables that a device has: not those that only the server reads. */
export type DeviceTable = {
  [T in TableName]: (typeof tables)[T]['keep'] extends 'server' ? never : T;
}[TableName];
export const isOnDevice = (table: TableName): table is DeviceTable =>
  tables[table].keep !== 'server';
export const deviceTables: readonly DeviceTable[] = tableNames.filter(isOnDevice);

export * from './names';
export type * from './tables/fields';

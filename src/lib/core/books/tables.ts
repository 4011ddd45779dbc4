/** Every table of the books. Amounts are minor units, quantities thousandths, times ISO text. */
import type { RowOf } from './table-spec';
import { drawerAndStockTables } from './tables/drawer-stock';
import { eventSumTables } from './tables/event-sums';
import { paymentTables } from './tables/payments';
import { peopleTables } from './tables/people';
import { setUpTables } from './tables/set-up';
import { slipAndSaleTables } from './tables/slips-sales';

export const tables = {
  ...setUpTables,
  ...peopleTables,
  ...drawerAndStockTables,
  ...slipAndSaleTables,
  ...paymentTables,
  ...eventSumTables,
} as const;

export type TableName = keyof typeof tables;
export type Row<T extends TableName> = RowOf<(typeof tables)[T]>;
export const tableNames = Object.keys(tables) as readonly TableName[];

export * from './names';
export type * from './tables/fields';

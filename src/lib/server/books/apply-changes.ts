/**
 * Changes as SQL. Says the same as `rowAfter` of the core, for many rows in one statement; the
 * contract test holds the two together.
 */
import mysql from 'mysql2';
import type { Sequelize, Transaction } from 'sequelize';
import type { Change } from '../../core/books/change';
import { combine } from '../../core/books/combine';
import { stampField, type AnyRow } from '../../core/books/table-spec';
import { tables, type Row, type TableName } from '../../core/books/tables';
import { sqlTable, valueFor } from '../database/book-tables';
import { select } from '../database/select';

type FieldSpec = Parameters<typeof valueFor>[0];

interface Statement {
  readonly table: TableName;
  readonly columns: readonly string[];
  readonly onDuplicate: string;
  readonly rows: string[];
}

/** Applies changes within the transaction that appends their entries. */
export async function applyChanges(
  sequelize: Sequelize,
  business: string,
  changes: readonly Change[],
  transaction: Transaction,
): Promise<void> {
  for (const statement of statementsOf(business, changes))
    await sequelize.query(statement, { transaction });
  await noteNames(sequelize, business, changes, transaction);
}

/** What is sent to the database to make the changes, in this order; names of goods are noted apart. */
export function statementsOf(business: string, changes: readonly Change[]): string[] {
  const statements = new Map<string, Statement>();
  const owner = mysql.escape(business);
  for (const change of combine(changes)) {
    const fields = fieldsOf(change);
    let key = `${change.op} ${change.table}`;
    let row = owner;
    const specs = tables[change.table].fields as Readonly<Record<string, FieldSpec>>;
    for (const field in fields) {
      const spec = specs[field];
      if (spec === undefined) throw new Error(`table ${change.table} has no field "${field}"`);
      key += ` ${field}`;
      row += `,${valueSql(valueFor(spec, fields[field]))}`;
    }
    let statement = statements.get(key);
    if (statement === undefined) {
      const columns = Object.keys(fields);
      statement = {
        table: change.table,
        columns,
        onDuplicate: onDuplicate(change, columns),
        rows: [],
      };
      statements.set(key, statement);
    }
    statement.rows.push(`(${row})`);
  }
  return [...statements.values()].map(({ table, columns, onDuplicate: update, rows }) => {
    const names = ['business', ...columns].map(quoted).join(', ');
    const into = `INSERT INTO ${sqlTable(table)} (${names}) VALUES `;
    return `${into}${rows.join(',')} ON DUPLICATE KEY UPDATE ${update}`;
  });
}

/** Nothing but a number goes out as it is, whatever stands in a row against its type. */
const valueSql = (value: string | number | null): string =>
  typeof value === 'number' ? String(value) : mysql.escape(value);

/** What goods that were sold are called, each once: Find looks through these, and not through all that was sold. */
export async function noteNames(
  sequelize: Sequelize,
  business: string,
  changes: readonly Change[],
  transaction: Transaction,
): Promise<void> {
  const called = new Set(
    changes.flatMap((change) =>
      change.table === 'saleLines' && change.op === 'put'
        ? calledOf(change.row as Pick<Row<'saleLines'>, 'name' | 'detail'>)
        : [],
    ),
  );
  if (called.size === 0) return;
  // Read first: rows that are there already would be locked by being written again.
  const there = await select<{ called: string }>(
    { sequelize },
    'SELECT called FROM find_names WHERE business = ? AND called IN (?)',
    [business, [...called]],
    transaction,
  );
  for (const each of there) called.delete(each.called);
  if (called.size === 0) return;
  await sequelize.query('INSERT IGNORE INTO find_names (business, called) VALUES ?', {
    replacements: [[...called].sort().map((each) => [business, each])],
    transaction,
  });
}

/** As the column of `books_sale_lines` has it. */
const calledOf = ({ name, detail }: Pick<Row<'saleLines'>, 'name' | 'detail'>): string =>
  `${name} ${detail}`;

function fieldsOf(change: Change): AnyRow {
  if (change.op === 'put') return change.row;
  if (change.op === 'add') return { ...change.key, ...change.fields };
  return { ...change.key, ...change.fields, [stampField(change.group)]: change.stamp };
}

function onDuplicate(change: Change, columns: readonly string[]): string {
  if (change.op === 'put') return 'business = VALUES(business)';
  const key = tables[change.table].key;
  const changed = columns.filter((column) => !key.includes(column));
  if (change.op === 'add') {
    return changed
      .map((column) => `${quoted(column)} = ${quoted(column)} + VALUES(${quoted(column)})`)
      .join(', ');
  }
  // MariaDB assigns from left to right: the stamp must come last.
  const stamp = quoted(stampField(change.group));
  return changed
    .map(quoted)
    .map((column) =>
      column === stamp
        ? `${stamp} = GREATEST(${stamp}, VALUES(${stamp}))`
        : `${column} = IF(VALUES(${stamp}) > ${stamp}, VALUES(${column}), ${column})`,
    )
    .join(', ');
}

const quoted = (column: string): string => `\`${column}\``;

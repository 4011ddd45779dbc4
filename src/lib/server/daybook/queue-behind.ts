/**
 * What an append leaves to be done behind the answers, in its own transaction: receipts and invoices to send, and what
 * devices say of cards, to be asked of the acquirer; standing charges to look at. What an entry says of numbers of invoices
 * is noted as given.
 */
import mysql from 'mysql2';
import type { Transaction } from 'sequelize';
import type { KnownEntry } from '../../core/daybook/kinds';
import type { Database } from '../database/database';

interface Queued {
  readonly state: string;
  readonly known: KnownEntry | null;
}

/** @param arrival Milliseconds since 1970. */
export async function queueBehind(
  { sequelize }: Pick<Database, 'sequelize'>,
  appended: readonly Queued[],
  arrival: number,
  transaction: Transaction,
): Promise<void> {
  const counts = appended.filter(({ state }) => state === 'applied' || state === 'doubted');
  const receipts: string[] = [];
  const checks: string[] = [];
  const numbers: string[] = [];
  const charges: string[] = [];
  const again: string[] = [];
  for (const { known } of counts) {
    if (known === null) continue;
    const { id, business } = known;
    if (known.kind === 'receipt.asked')
      receipts.push(
        mysql.format("(?, ?, 'due', 0, 0, ?, ?)", [business, id, known.body.way, arrival]),
      );
    if (known.kind === 'invoice.asked')
      receipts.push(mysql.format("(?, ?, 'due', 0, 0, 'invoice', ?)", [business, id, arrival]));
    if (known.kind === 'reminder.asked')
      receipts.push(mysql.format("(?, ?, 'due', 0, 0, 'reminder', ?)", [business, id, arrival]));
    if (known.kind === 'list.mailed')
      receipts.push(mysql.format("(?, ?, 'due', 0, 0, 'order', ?)", [business, id, arrival]));
    if (known.kind === 'charge.set')
      charges.push(mysql.format('(?, ?, ?)', [business, known.body.id, arrival]));
    if (known.kind === 'charge.again')
      again.push(mysql.format('(?, ?, ?, ?)', [business, known.body.invoice, id, arrival]));
    if (known.kind === 'invoice.numbered') {
      const { series, n, invoice, number } = known.body;
      numbers.push(mysql.format('(?, ?, ?, ?, ?)', [business, series, n, invoice, number]));
    }
    const payment = spokenOf(known);
    if (payment !== null)
      checks.push(mysql.format('(?, ?, ?, ?)', [business, id, payment, arrival]));
  }
  if (receipts.length > 0)
    await sequelize.query(
      'INSERT IGNORE INTO receipts_sent (business, id, state, tries, triedAt, way, arrived) VALUES ' +
        receipts.join(','),
      { transaction },
    );
  // Given before the server was set back to an earlier day: nobody else gets it now.
  if (numbers.length > 0)
    await sequelize.query(
      'INSERT IGNORE INTO invoice_numbers (business, series, n, invoice, number) VALUES ' +
        numbers.join(','),
      { transaction },
    );
  // When it is due is worked out behind the answers.
  if (charges.length > 0)
    await sequelize.query(
      `INSERT INTO charges_due (business, charge, dueAt) VALUES ${charges.join(',')} ` +
        'ON DUPLICATE KEY UPDATE dueAt = VALUES(dueAt)',
      { transaction },
    );
  if (again.length > 0)
    await sequelize.query(
      `INSERT IGNORE INTO charge_cards_due (business, invoice, attempt, dueAt) VALUES ${again.join(',')}`,
      { transaction },
    );
  if (checks.length > 0)
    await sequelize.query(
      `INSERT IGNORE INTO cards_to_check (business, entry, payment, dueAt) VALUES ${checks.join(',')}`,
      { transaction },
    );
}

/** The card payment of which an entry says what the acquirer made of it, or null. */
function spokenOf(entry: KnownEntry): string | null {
  if (entry.kind === 'payment.result') return entry.body.payment;
  const isSaid =
    entry.kind === 'payment.taken' &&
    entry.body.card !== null &&
    entry.body.card.state !== 'deferred';
  return isSaid ? entry.id : null;
}

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
  /** @param once Of several that ask for the same, the first to arrive stands for all. */
  const toSend = (id: string, business: string, way: string, once: string | null = null): void => {
    receipts.push(mysql.format("(?, ?, 'due', 0, 0, ?, ?, ?)", [business, id, way, arrival, once]));
  };
  for (const { known } of counts) {
    if (known === null) continue;
    const { id, business } = known;
    if (known.kind === 'receipt.asked') toSend(id, business, known.body.way);
    if (known.kind === 'invoice.asked') toSend(id, business, 'invoice');
    if (known.kind === 'reminder.asked') toSend(id, business, 'reminder');
    if (known.kind === 'list.mailed') {
      const { list, before } = known.body;
      toSend(id, business, 'order', before === null ? null : `${list} ${String(before)}`);
    }
    if (known.kind === 'maker.mailed') {
      const { event, maker, before } = known.body;
      toSend(id, business, 'maker', `${event} ${maker} ${String(before)}`);
    }
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
      'INSERT IGNORE INTO receipts_sent (business, id, state, tries, triedAt, way, arrived, once) VALUES ' +
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

/**
 * Sends the receipts, invoices, orders and statements that were asked for, each once. One is claimed before it is handed
 * over, so that of several processes one sends it; one that died with it in its hand is tried again after a while, under
 * the same message id, by which a mailbox and a gateway tell that they have it already.
 */
import { QueryTypes, type Sequelize } from 'sequelize';
import { localTime } from '../../core/event/local-time';
import type { ReceiptWay } from '../../core/daybook/kinds/receipt-asked';
import { receiptOf, type Receipt } from '../../core/receipt/receipt';
import { asCorrected } from '../../core/sale/corrections';
import { receiptToSend } from '../../core/receipt/receipt-to-send';
import { receiptMessage } from '../../core/receipt/receipt-message';
import type { PaperWords } from '../../core/receipt/receipt-text';
import type { Row } from '../../core/books/tables';
import type { BookReader } from '../books/read-books';
import type { Database } from '../database/database';
import { select } from '../database/select';
import type { Mailer } from '../mail/mailer';
import type { TextSender } from '../texts/text-sender';
import { invoiceFor } from '../invoices/invoice-letter';
import { makerStatementFor } from './maker-letter';
import { orderFor } from './order-letter';
import { reminderFor } from '../invoices/reminder-letter';
import { log } from '../services';
import { receiptLetter, type Letter } from '../words/letters';
import { sha256 } from '../sha-256';

const AT_ONCE = 20;
/** Of one business in a round, so that whoever asks for many does not hold up the others. */
const OF_EACH = 5;
/** Twice as long each time, up to an hour: whoever takes no mail for a day loses nothing by it. */
const TRIED_AGAIN_AFTER = 60_000;
const LONGEST_PAUSE = 3_600_000;
/** About four days. */
export const MOST_TRIES = 100;
/** What is sent in a day at most: in the name of one business, and to one address by whoever. */
export const MOST_A_DAY = { business: 500, address: 10 } as const;
const DAY = 86_400_000;

/** Who carries what; null for what this server does not send. */
export interface Carriers {
  readonly mailer: Mailer | null;
  readonly texts: TextSender | null;
}

interface Due {
  readonly business: string;
  readonly id: string;
  readonly way: ReceiptWay | 'invoice' | 'reminder' | 'order' | 'maker';
  /** Of a receipt; null for an invoice, and the other way round. */
  readonly sale: string | null;
  readonly isGift: number | null;
  readonly invoice: string | null;
  /** The invoice that somebody is reminded of. */
  readonly reminder: string | null;
  /** The list of goods that is an order to a supplier. */
  readonly list: string | null;
  /** Whose goods an event's statement is about. */
  readonly maker: string | null;
  readonly event: string | null;
  readonly entry: string;
}

/**
 * In the order in which they arrived, businesses taking turns. Of a business whose owner's address nobody
 * has confirmed nothing is sent; beyond what a day holds it waits for the next.
 * @returns How many are left to be sent now. @param now Milliseconds since 1970.
 */
export async function sendReceipts(
  database: Database,
  books: BookReader,
  carriers: Carriers,
  now: number,
): Promise<number> {
  const ways = [
    ...(carriers.mailer === null ? [] : ['email', 'invoice', 'reminder', 'order', 'maker']),
    ...(carriers.texts === null ? [] : ['text']),
  ];
  if (ways.length === 0) return 0;
  const due = await select<Due>(
    database,
    `SELECT d.business, d.id, d.way, a.sale, a.isGift, i.invoice, r.invoice AS reminder, l.list, m.maker, m.event, e.entry FROM (
       SELECT s.business, s.id, s.way, s.arrived,
         ROW_NUMBER() OVER (PARTITION BY s.business ORDER BY s.arrived, s.id) AS nth
       FROM receipts_sent s WHERE ${CAN_BE_SENT} AND s.dueAt <= ?) d
     LEFT JOIN books_receipt_asks a ON a.business = d.business AND a.id = d.id
     LEFT JOIN books_invoice_asks i ON i.business = d.business AND i.id = d.id
     LEFT JOIN books_reminders r ON r.business = d.business AND r.id = d.id
     LEFT JOIN books_list_acts l ON l.business = d.business AND l.id = d.id AND l.does = 'mailed'
     LEFT JOIN books_maker_mails m ON m.business = d.business AND m.id = d.id
     JOIN daybook_entries e ON e.business = d.business AND e.id = d.id
     WHERE d.nth <= ? AND (a.id IS NOT NULL OR i.id IS NOT NULL OR r.id IS NOT NULL OR l.id IS NOT NULL OR m.id IS NOT NULL) ORDER BY d.arrived, d.id LIMIT ?`,
    [ways, MOST_TRIES, now, OF_EACH, AT_ONCE],
  );
  for (const each of due) {
    if (!(await claim(database.sequelize, each, now))) continue;
    const outcome = await sendOne(each, database, books, carriers, now);
    if (outcome === 'again') continue;
    await database.sequelize.query(
      outcome === 'sent'
        ? "UPDATE receipts_sent SET state = 'sent' WHERE business = ? AND id = ?"
        : 'UPDATE receipts_sent SET dueAt = ?, tries = tries - 1 WHERE business = ? AND id = ?',
      {
        replacements: [...(outcome === 'sent' ? [] : [tomorrow(now)]), each.business, each.id],
      },
    );
  }
  const [waiting] = await select<{ many: string }>(
    database,
    `SELECT COUNT(*) AS many FROM receipts_sent s WHERE ${CAN_BE_SENT}`,
    [ways, MOST_TRIES],
  );
  return Number(waiting?.many ?? 0);
}

/** Whether the invoice that it is about has its number: with it, or with the push that brings it, it is sent. */
const isNumbered = (table: string): string =>
  `EXISTS (SELECT 1 FROM ${table} x JOIN books_invoice_numbers n ` +
  'ON n.business = x.business AND n.id = x.invoice WHERE x.business = s.business AND x.id = s.id)';

/** Due, by ways that are open here, and of a business whose owner reads the mail of their address. */
const CAN_BE_SENT =
  "s.state = 'due' AND s.way IN (?) AND s.tries < ? AND EXISTS (SELECT 1 FROM access_owners o " +
  'WHERE o.business = s.business AND o.verified IS NOT NULL) ' +
  "AND (s.way NOT IN ('invoice', 'reminder') " +
  `OR ${isNumbered('books_invoice_asks')} OR ${isNumbered('books_reminders')})`;

const dayOf = (at: number): string => new Date(at).toISOString().slice(0, 10);
const tomorrow = (now: number): number => (Math.floor(now / DAY) + 1) * DAY;

/** Whether this process is the one that sends it; nobody else tries within a minute, or longer each time. */
async function claim(sequelize: Sequelize, { business, id }: Due, now: number): Promise<boolean> {
  const changed = await sequelize.query(
    // What `tries` is once it was counted up, as MariaDB goes from left to right.
    'UPDATE receipts_sent SET tries = tries + 1, triedAt = ?, ' +
      'dueAt = ? + LEAST(?, ? * POW(2, LEAST(tries, 20) - 1)) ' +
      "WHERE business = ? AND id = ? AND state = 'due' AND dueAt <= ?",
    {
      replacements: [now, now, LONGEST_PAUSE, TRIED_AGAIN_AFTER, business, id, now],
      type: QueryTypes.BULKUPDATE,
    },
  );
  return changed > 0;
}

/** `again`: nobody took it. `tomorrow`: enough has been sent for one day. */
async function sendOne(
  due: Due,
  database: Database,
  books: BookReader,
  { mailer, texts }: Carriers,
  now: number,
): Promise<'sent' | 'again' | 'tomorrow'> {
  const { private: apart } = JSON.parse(due.entry) as {
    readonly private?: { readonly data: { readonly to?: string } };
  };
  const said = apart?.data.to;
  // Erased since: there is nobody to send it to. A supplier's or a maker's address stands in the books.
  if (said === undefined && due.list === null && due.maker === null) return 'sent';
  const letter = await letterFor(due, database, books, now).catch((error: unknown) => {
    // One that cannot be set holds up no other.
    log.error({ name: error instanceof Error ? error.name : 'unknown' }, 'a letter cannot be set');
    return null;
  });
  if (letter === null) return 'again';
  // It was paid meanwhile: nobody is reminded of it.
  if (letter === 'not needed') return 'sent';
  const to = said ?? letter.to;
  if (to === undefined) return 'again';
  const [ofBusiness, ofAddress] = [due.business, `to ${to.toLowerCase()}`];
  const day = dayOf(now);
  if (
    (await sentOn(database, ofBusiness, day)) >= MOST_A_DAY.business ||
    (await sentOn(database, ofAddress, day)) >= MOST_A_DAY.address
  )
    return 'tomorrow';
  try {
    if (due.way === 'text') await texts?.send({ id: due.id, to, text: letter.text });
    else await mailer?.send({ ...letter, to, messageId: messageId(due) });
  } catch {
    return 'again';
  }
  for (const who of [ofBusiness, ofAddress]) await countSent(database.sequelize, who, day);
  return 'sent';
}

/** No address stands in the table, only its hash. */
async function sentOn(database: Database, who: string, day: string): Promise<number> {
  const [row] = await select<{ sent: number }>(
    database,
    'SELECT sent FROM receipts_counted WHERE who = ? AND day = ?',
    [sha256(who), day],
  );
  return row?.sent ?? 0;
}

async function countSent(sequelize: Sequelize, who: string, day: string): Promise<void> {
  await sequelize.query(
    'INSERT INTO receipts_counted (who, day, sent) VALUES (?, ?, 1) ' +
      'ON DUPLICATE KEY UPDATE sent = sent + 1',
    { replacements: [sha256(who), day] },
  );
}

const messageId = ({ id }: Due): string => `<${id}@stall-till>`;

/** What is sent; null while its sale has not come yet. */
async function letterFor(
  due: Due,
  database: Database,
  books: BookReader,
  now: number,
): Promise<(Letter & { readonly to?: string }) | 'not needed' | null> {
  if (due.list !== null) return await orderFor(books, due.business, due.list);
  if (due.maker !== null && due.event !== null) {
    const { event, maker } = due;
    return await makerStatementFor(database, books, due.business, { event, maker }, now);
  }
  if (due.reminder !== null) return await reminderFor(books, due.business, due.id, now);
  if (due.invoice !== null) return await invoiceFor(books, due.business, due.invoice);
  const made = await receiptFor(due, books);
  if (made === null) return null;
  const { receipt, words } = made;
  return due.way === 'text'
    ? { subject: '', text: receiptMessage(receipt, words) }
    : receiptLetter(receipt, words);
}

async function receiptFor(
  { business, sale: id, isGift }: Due,
  books: BookReader,
): Promise<{ readonly receipt: Receipt; readonly words: PaperWords } | null> {
  if (id === null) return null;
  const [rung] = await books.rows(business, 'sales', { id });
  const [own] = await books.rows(business, 'businesses', { id: business });
  if (rung === undefined || own === undefined) return null;
  // As it was put right since, which the receipt that is printed says as well.
  const { sale, lines, payments } = asCorrected(
    {
      sale: rung,
      lines: await books.rows(business, 'saleLines', { sale: id }),
      payments: await paymentsOf(books, business, rung),
    },
    await books.rows(business, 'corrections', { sale: id }),
  );
  const [event] =
    sale.event === null ? [] : await books.rows(business, 'events', { id: sale.event });
  const [seller] = sale.by === null ? [] : await books.rows(business, 'staff', { id: sale.by });
  const receipt = receiptToSend(
    receiptOf({
      business: own,
      event,
      ...{ sale, lines, payments },
      seller: seller?.name ?? '',
      isGift: isGift === 1,
      isVoid: (await books.rows(business, 'voids', { sale: id })).length > 0,
      returns: (await books.rows(business, 'returns', { sale: id })).sort((a, b) =>
        a.at < b.at ? -1 : 1,
      ),
    }),
  );
  const { day, hour, minute } = localTime(Date.parse(sale.at), event?.timeZone ?? own.timeZone);
  const time = [hour, minute].map((part) => String(part).padStart(2, '0')).join(':');
  return { receipt, words: { locale: own.locale, when: `${day} ${time}` } };
}

const paymentsOf = async (
  books: BookReader,
  business: string,
  { payments }: Row<'sales'>,
): Promise<Row<'payments'>[]> =>
  payments.length === 0 ? [] : await books.rows(business, 'payments', { id: [...payments] });

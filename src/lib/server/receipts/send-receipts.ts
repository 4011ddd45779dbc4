/**
 * Sends the receipts that were asked for, each once. One is claimed before it is handed over, so that of
 * several processes one sends it; one that died with it in its hand is tried again after a while, under
 * the same message id, by which a mailbox and a gateway tell that they have it already.
 */
import type { Sequelize } from 'sequelize';
import { localTime } from '../../core/event/local-time';
import type { ReceiptWay } from '../../core/daybook/kinds/receipt-asked';
import { receiptCode, receiptOf, type Receipt } from '../../core/receipt/receipt';
import { receiptMessage } from '../../core/receipt/receipt-message';
import { paperLines, plainText, type PaperWords } from '../../core/receipt/receipt-text';
import type { Row } from '../../core/books/tables';
import type { BookReader } from '../books/read-books';
import type { Database } from '../database/database';
import { select } from '../database/select';
import type { Mail, Mailer } from '../mail/mailer';
import type { TextSender } from '../texts/text-sender';

const AT_ONCE = 20;
const TRIED_AGAIN_AFTER = 60_000;
const MOST_TRIES = 30;
const LETTERS = 44;

/** Who carries what; null for what this server does not send. */
export interface Carriers {
  readonly mailer: Mailer | null;
  readonly texts: TextSender | null;
}

interface Due {
  readonly business: string;
  readonly id: string;
  readonly way: ReceiptWay;
  readonly sale: string;
  readonly isGift: number;
  readonly entry: string;
}

/** @returns How many are left to be sent. @param now Milliseconds since 1970. */
export async function sendReceipts(
  database: Database,
  books: BookReader,
  carriers: Carriers,
  now: number,
): Promise<number> {
  const ways = [
    ...(carriers.mailer === null ? [] : ['email']),
    ...(carriers.texts === null ? [] : ['text']),
  ];
  if (ways.length === 0) return 0;
  const due = await select<Due>(
    database,
    `SELECT a.business, a.id, a.way, a.sale, a.isGift, e.entry FROM books_receipt_asks a
      JOIN daybook_entries e ON e.business = a.business AND e.id = a.id
      LEFT JOIN receipts_sent s ON s.business = a.business AND s.id = a.id
      WHERE a.way IN (?) AND
        (s.id IS NULL OR (s.state = 'trying' AND s.triedAt < ? AND s.tries < ?))
      ORDER BY a.at LIMIT ?`,
    [ways, now - TRIED_AGAIN_AFTER, MOST_TRIES, AT_ONCE],
  );
  for (const each of due) {
    if (!(await claim(database.sequelize, each, now))) continue;
    if (await sendOne(each, books, carriers)) {
      await database.sequelize.query(
        "UPDATE receipts_sent SET state = 'sent' WHERE business = ? AND id = ?",
        { replacements: [each.business, each.id] },
      );
    }
  }
  const [waiting] = await select<{ many: string }>(
    database,
    `SELECT COUNT(*) AS many FROM books_receipt_asks a
      LEFT JOIN receipts_sent s ON s.business = a.business AND s.id = a.id
      WHERE a.way IN (?) AND (s.id IS NULL OR (s.state = 'trying' AND s.tries < ?))`,
    [ways, MOST_TRIES],
  );
  return Number(waiting?.many ?? 0);
}

/** Whether this process is the one that sends it. */
async function claim(sequelize: Sequelize, { business, id }: Due, now: number): Promise<boolean> {
  const [, changed] = await sequelize.query(
    `INSERT INTO receipts_sent (business, id, state, tries, triedAt) VALUES (?, ?, 'trying', 1, ?)
      ON DUPLICATE KEY UPDATE
        tries = IF(state = 'trying' AND triedAt < ?, tries + 1, tries),
        triedAt = IF(state = 'trying' AND triedAt < ?, VALUES(triedAt), triedAt)`,
    {
      replacements: [business, id, now, now - TRIED_AGAIN_AFTER, now - TRIED_AGAIN_AFTER],
      type: 'INSERT' as never,
    },
  );
  return changed > 0;
}

/** @returns False if it must be tried again: nobody took it, or the sale has not come yet. */
async function sendOne(due: Due, books: BookReader, { mailer, texts }: Carriers): Promise<boolean> {
  const { private: apart } = JSON.parse(due.entry) as {
    readonly private?: { readonly data: { readonly to?: string } };
  };
  const to = apart?.data.to;
  // Erased since: there is nobody to send it to.
  if (to === undefined) return true;
  const made = await receiptFor(due, books);
  if (made === null) return false;
  const { receipt, words } = made;
  try {
    if (due.way === 'text')
      await texts?.send({ id: due.id, to, text: receiptMessage(receipt, words) });
    else await mailer?.send({ ...letterOf(receipt, words), to, messageId: messageId(due) });
    return true;
  } catch {
    return false;
  }
}

const messageId = ({ id }: Due): string => `<${id}@stall-till>`;

function letterOf(receipt: Receipt, words: PaperWords): Pick<Mail, 'subject' | 'text'> {
  const text = plainText(paperLines(receipt, words), LETTERS);
  return {
    subject: `${receipt.vendor}: your receipt ${receipt.number}`,
    text: `${text}\n\n${receiptCode(receipt)}\n`,
  };
}

/** Null while its sale has not come yet. */
async function receiptFor(
  { business, sale: id, isGift }: Due,
  books: BookReader,
): Promise<{ readonly receipt: Receipt; readonly words: PaperWords } | null> {
  const [sale] = await books.rows(business, 'sales', { id });
  const [own] = await books.rows(business, 'businesses', { id: business });
  if (sale === undefined || own === undefined) return null;
  const [event] =
    sale.event === null ? [] : await books.rows(business, 'events', { id: sale.event });
  const [seller] = sale.by === null ? [] : await books.rows(business, 'staff', { id: sale.by });
  const receipt = receiptOf({
    business: own,
    event,
    sale,
    lines: await books.rows(business, 'saleLines', { sale: id }),
    payments: await paymentsOf(books, business, sale),
    seller: seller?.name ?? '',
    isGift: isGift === 1,
    isVoid: (await books.rows(business, 'voids', { sale: id })).length > 0,
  });
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

/**
 * Makes the invoices of standing charges whose day has come: the invoice, its number and the letter that goes with it, and
 * notes the card that is to be charged, all in one transaction with how far the charge is. A few at a time, with rests
 * between them, so that whoever pushes meanwhile waits little.
 */
import { randomBytes } from 'node:crypto';
import { setTimeout as rest } from 'node:timers/promises';
import type { Transaction } from 'sequelize';
import { chargeNumbered, makeCharge } from '../../core/charge/due-charge';
import { daysToCome, daysToMake } from '../../core/charge/set-charge';
import type { Row } from '../../core/books/tables';
import { byRecord } from '../../core/customer/joined';
import type { Draft } from '../../core/daybook/chain';
import { localTime, momentOf } from '../../core/event/local-time';
import { taxesInForce } from '../../core/slip/price-slip';
import { recordsAmong } from '../books/customer-records';
import type { BookReader } from '../books/read-books';
import { writeOwn } from '../daybook/own-daybook';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { giveNumber } from '../invoices/number-invoice';
import { makeSecret } from '../invoices/number-seal';
import { log } from '../services';
import { chargeIds } from './charge-ids';

/** In one transaction, and days of one charge that are caught up with in it. */
const AT_ONCE = 5;
const DAYS_AT_ONCE = 12;
/** For each millisecond of work so many of rest: pushes are held up by a fifth at most. */
const RESTS = 4;
const TRIED_AGAIN_AFTER = 3_600_000;

interface Due {
  readonly business: string;
  readonly charge: string;
}

/**
 * Until none is due. @param now Milliseconds since 1970.
 * @returns How many invoices were made.
 */
export async function makeCharges(
  database: Database,
  books: BookReader,
  now: number,
): Promise<number> {
  let made = 0;
  for (;;) {
    const due = await select<Due>(
      database,
      'SELECT business, charge FROM charges_due WHERE dueAt <= ? ORDER BY dueAt, business, charge LIMIT ?',
      [now, AT_ONCE],
    );
    const [first] = due;
    if (first === undefined) return made;
    const own = due.flatMap(({ business, charge }) =>
      business === first.business ? [charge] : [],
    );
    const began = performance.now();
    made += await makeSome(database, books, first.business, own, now);
    await rest((performance.now() - began) * RESTS);
  }
}

/** Of one business. If something is wrong with them, each by itself; what cannot be made is looked at again later. */
async function makeSome(
  database: Database,
  books: BookReader,
  business: string,
  charges: readonly string[],
  now: number,
): Promise<number> {
  try {
    const entries = await writeOwn(database, business, now, (transaction) =>
      draftsOf({ database, books, business, transaction, now }, charges),
    );
    return entries.filter(({ kind }) => kind === 'invoice.made').length;
  } catch (error) {
    if (charges.length > 1) {
      let made = 0;
      for (const charge of charges)
        made += await makeSome(database, books, business, [charge], now);
      return made;
    }
    const message = error instanceof Error ? error.message.slice(0, 300) : '';
    log.error({ charge: charges[0], message }, 'a standing charge is not made');
    await database.sequelize.query(
      'UPDATE charges_due SET dueAt = ? WHERE business = ? AND charge = ?',
      { replacements: [now + TRIED_AGAIN_AFTER, business, charges[0]] },
    );
    return 0;
  }
}

interface Making {
  readonly database: Database;
  readonly books: BookReader;
  readonly business: string;
  readonly transaction: Transaction;
  readonly now: number;
}

async function draftsOf(making: Making, ids: readonly string[]): Promise<readonly Draft[]> {
  const { database, books, business, transaction, now } = making;
  // Another process may have done some of them by now.
  const due = await select<Due>(
    database,
    'SELECT business, charge FROM charges_due WHERE business = ? AND charge IN (?) AND dueAt <= ?',
    [business, [...ids], now],
    transaction,
  );
  if (due.length === 0) return [];
  const wanted = due.map(({ charge }) => charge);
  const [own] = await books.rows(business, 'businesses', { id: business }, transaction);
  const charges = await books.rows(business, 'charges', { id: wanted }, transaction);
  const people = byRecord(
    await recordsAmong(
      books,
      business,
      charges.map(({ customer }) => customer),
      transaction,
    ),
  );
  const taxes = taxesInForce(await books.rows(business, 'taxes', {}, transaction));
  const secret = await makeSecret(database, business, transaction);
  const drafts: Draft[] = [];
  for (const id of wanted) {
    const charge = charges.find((each) => each.id === id);
    const person = charge === undefined ? undefined : people.get(charge.customer);
    if (own?.invoicing == null || charge === undefined || person === undefined || person.isErased) {
      await lookAgain(making, id, null);
      continue;
    }
    const { invoicing, currency, pricesIncludeTax, taxRounding, timeZone } = own;
    const today = localTime(now, timeZone).day;
    const days = daysToMake(charge, today);
    for (const day of days.slice(0, DAYS_AT_ONCE)) {
      const said = chargeIds(secret, business, id, day);
      const made = makeCharge({
        ...{ charge, day, today, invoicing, currency, pricesIncludeTax, taxRounding, taxes },
        // What is owed is that record's; whom it is to is as the person is known now.
        customer: { ...person, id: charge.customer },
        ids: said,
        newSalt: () => randomBytes(18).toString('base64url'),
      });
      if (!made.ok) throw new Error(made.refusal.code);
      const number = await giveNumber(
        database,
        business,
        invoicing,
        { id: said.invoice, issued: today },
        transaction,
      );
      drafts.push(made.invoice, chargeNumbered(said, number));
      if (made.letter !== null) drafts.push(made.letter);
      if (charge.way !== null) await askCard(making, said.invoice);
    }
    const isBehind = days.length > DAYS_AT_ONCE;
    await lookAgain(making, id, isBehind ? now : nextMoment(charge, days, timeZone));
  }
  return drafts;
}

/** When the next day of it begins on the business's own clock; null where there is none. */
function nextMoment(
  charge: Row<'charges'>,
  made: readonly string[],
  timeZone: string,
): number | null {
  const [next] = daysToCome({ ...charge, upTo: made.at(-1) ?? charge.upTo }, 1);
  return next === undefined ? null : momentOf(next, '00:00', timeZone);
}

async function lookAgain(
  { database, business, transaction }: Making,
  charge: string,
  at: number | null,
): Promise<void> {
  await database.sequelize.query(
    at === null
      ? 'DELETE FROM charges_due WHERE business = ? AND charge = ?'
      : 'UPDATE charges_due SET dueAt = ? WHERE business = ? AND charge = ?',
    { replacements: [...(at === null ? [] : [at]), business, charge], transaction },
  );
}

async function askCard(
  { database, business, transaction, now }: Making,
  invoice: string,
): Promise<void> {
  await database.sequelize.query(
    "INSERT IGNORE INTO charge_cards_due (business, invoice, attempt, dueAt) VALUES (?, ?, '', ?)",
    { replacements: [business, invoice, now], transaction },
  );
}

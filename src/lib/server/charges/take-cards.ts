/**
 * Charges cards on file for invoices of standing charges. What is asked stands before anybody is asked, under a reference
 * that is the same for ever: whoever dies between asking and hearing asks again and hears the same.
 */
import { cardHolder, cardOf, hasExpired } from '../../core/customer/card-on-file';
import { Joined } from '../../core/customer/joined';
import type { Row } from '../../core/books/tables';
import { draft, type BodyOf } from '../../core/daybook/kinds';
import type { Draft } from '../../core/daybook/chain';
import { localTime } from '../../core/event/local-time';
import { clipped } from '../../core/payment/card-messages';
import { documentOf, openItems } from '../../core/held/statement';
import { sum } from '../../core/money/units';
import { recordsAmong } from '../books/customer-records';
import { heldMovesOf } from '../books/held-moves';
import type { BookReader } from '../books/read-books';
import type { Acquirer, AcquirerAnswer } from '../cards/acquirer';
import { ofBusiness } from '../cards/card-route';
import { askedCard, noteAnswer, noteAsked } from '../cards/cards-asked';
import { tokenOf } from '../cards/cards-on-file';
import { ownDevice, writeOwn } from '../daybook/own-daybook';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { secretOf } from '../invoices/number-seal';
import { log } from '../services';
import { ownId, paymentId } from './charge-ids';

const AT_ONCE = 20;
/** Of one business in a round, so that none holds up the others. */
const OF_EACH = 5;
const TRIED_AGAIN_AFTER = 60_000;
/** Where nobody answers, at the latest after this. */
const LONGEST_WAIT = 3_600_000;

interface Due {
  readonly business: string;
  readonly invoice: string;
  readonly attempt: string;
  readonly tries: number;
}

interface Taking {
  readonly database: Database;
  readonly books: BookReader;
  readonly acquirer: Acquirer | null;
  readonly now: number;
}

/** @returns How many are due still. @param acquirer Null if nobody takes cards here. @param now Milliseconds since 1970. */
export async function takeCards(
  database: Database,
  books: BookReader,
  acquirer: Acquirer | null,
  now: number,
): Promise<number> {
  const taking: Taking = { database, books, acquirer, now };
  const due = await select<Due>(
    database,
    `SELECT business, invoice, attempt, tries FROM (
       SELECT business, invoice, attempt, tries, dueAt,
         ROW_NUMBER() OVER (PARTITION BY business ORDER BY dueAt, invoice) AS nth
       FROM charge_cards_due WHERE dueAt <= ?) d
     WHERE nth <= ? ORDER BY dueAt, invoice LIMIT ?`,
    [now, OF_EACH, AT_ONCE],
  );
  for (const each of due) {
    const isDone = await takeOne(taking, each).catch((error: unknown) => {
      const message = error instanceof Error ? error.message.slice(0, 300) : '';
      log.error({ invoice: each.invoice, message }, 'a card on file is charged later');
      return false;
    });
    if (!isDone) await later(taking, each);
  }
  const [left] = await select<{ n: string }>(
    database,
    'SELECT COUNT(*) AS n FROM charge_cards_due WHERE dueAt <= ?',
    [now],
  );
  return Number(left?.n ?? 0);
}

async function later({ database, now }: Taking, due: Due): Promise<void> {
  const wait = Math.min(LONGEST_WAIT, TRIED_AGAIN_AFTER * 2 ** Math.min(due.tries, 6));
  await database.sequelize.query(
    'UPDATE charge_cards_due SET dueAt = ?, tries = tries + 1 ' +
      'WHERE business = ? AND invoice = ? AND attempt = ?',
    { replacements: [now + wait, due.business, due.invoice, due.attempt] },
  );
}

/** What is known of it before anybody is asked. */
interface Asking {
  readonly invoice: Row<'invoices'>;
  readonly charge: Row<'charges'>;
  /** The record whose card it is, if there is one. */
  readonly holder: Row<'customers'> | undefined;
  readonly payment: string;
  /** What is written of this attempt has the same id for ever. */
  readonly idOf: (what: 'paid' | 'failed') => string;
  /** The way that it is booked by. */
  readonly way: string;
  /** Nobody has said since it was halted that its card is charged. */
  readonly isHalted: boolean;
  readonly currency: string;
  readonly today: string;
}

/** @returns Null where there is nothing to charge for. */
async function askingOf(
  { database, books, now }: Taking,
  { business, invoice: id, attempt }: Due,
): Promise<Asking | null> {
  const [own] = await books.rows(business, 'businesses', { id: business });
  const [invoice] = await books.rows(business, 'invoices', { id });
  const source = invoice?.sourceIs === 'charge' ? invoice.source : null;
  const [charge] = source === null ? [] : await books.rows(business, 'charges', { id: source });
  if (own === undefined || invoice === undefined || charge === undefined) return null;
  const way = await wayOf(books, business, charge);
  const secret = await database.transaction((transaction) =>
    secretOf(database, business, transaction),
  );
  if (way === null || secret === null) return null;
  const records = await recordsAmong(books, business, [invoice.customer]);
  const person = new Joined(records).records(invoice.customer);
  return {
    ...{ invoice, charge, way, currency: own.currency },
    holder: cardHolder(person.flatMap((each) => records.find((row) => row.id === each) ?? [])),
    payment: paymentId(secret, business, id, attempt),
    idOf: (what) => ownId(secret, business, what, id, attempt),
    isHalted: !charge.isActive && attempt === '',
    today: localTime(now, own.timeZone).day,
  };
}

/** @returns Whether it is done with; else it is tried again. */
async function takeOne(taking: Taking, due: Due): Promise<boolean> {
  const { database, books, acquirer, now } = taking;
  const { business } = due;
  const asking = await askingOf(taking, due);
  if (asking === null) return await write(taking, due, []);
  const { invoice, payment, currency, holder } = asking;
  const asked = await askedCard(database, business, payment);
  const amount = asked?.amount ?? (await leftOf(books, business, invoice, asking.today));
  // Paid in another way meanwhile, or credited.
  if (amount <= 0) return await write(taking, due, []);
  const token = asked === null ? await mayBeCharged(taking, business, asking) : null;
  if (typeof token === 'object' && token !== null)
    return await write(taking, due, [failed(asking, token.why, '', amount)]);
  if (acquirer === null) return false;
  const device = ownDevice(database, business);
  await noteAsked(database, business, { payment, device, amount, currency }, now);
  const said = await ask(taking, business, asking, amount, token);
  if (said.came === 'unknown') return false;
  if (said.came === 'refusal')
    return await write(taking, due, [failed(asking, 'declined', said.message, amount)]);
  const { state, amount: taken, approval, acquirer: name, reason } = said.answer;
  await noteAnswer(database, business, payment, said.answer);
  if (state !== 'captured' || taken <= 0)
    return await write(taking, due, [failed(asking, 'declined', reason, amount)]);
  const card = cardOf(holder);
  const paid = draft('charge.paid', asking.idOf('paid'), null, {
    ...aboutOf(asking),
    ...{ amount: taken, approval, acquirer: name },
    ...{ scheme: card?.scheme ?? '', last4: card?.last4 ?? '' },
  });
  // Part of it was approved: the rest is somebody's to see to.
  const rest = failed(asking, 'declined', 'only part of it was approved', amount - taken);
  return await write(taking, due, taken < amount ? [paid, rest] : [paid]);
}

/** @param amount What of it was not paid, minor units. */
const failed = (
  asking: Asking,
  why: BodyOf<'charge.failed'>['why'],
  says: string,
  amount: number,
): Draft =>
  draft('charge.failed', asking.idOf('failed'), null, {
    ...{ ...aboutOf(asking), amount, why },
    ...{ says: clipped(says), last4: cardOf(asking.holder)?.last4 ?? '' },
  });

/** As it is set up; where it is paid otherwise by now, as any card is booked. */
async function wayOf(
  books: BookReader,
  business: string,
  { way }: Row<'charges'>,
): Promise<string | null> {
  if (way !== null) return way;
  const [any] = await books.rows(business, 'ways', { method: ['keyed', 'card'] });
  return any?.id ?? null;
}

const aboutOf = ({ invoice, charge, payment, way }: Asking) => ({
  ...{ invoice: invoice.id, charge: charge.id, customer: invoice.customer, payment, way },
});

/** The token that is charged, or why none is. */
async function mayBeCharged(
  { database, acquirer }: Taking,
  business: string,
  { charge, holder, today, isHalted }: Asking,
): Promise<string | { readonly why: BodyOf<'charge.failed'>['why'] }> {
  if (isHalted) return { why: 'halted' };
  const card = cardOf(holder);
  if (card === null || holder === undefined || charge.way === null) return { why: 'no card' };
  if (hasExpired(card, today)) return { why: 'expired' };
  if (acquirer === null) return { why: 'no acquirer' };
  return (await tokenOf(database, business, holder.id)) ?? { why: 'no card' };
}

/** Anew, or what became of it where somebody was asked before. */
async function ask(
  { database, acquirer }: Taking,
  business: string,
  { holder, payment, currency }: Asking,
  amount: number,
  token: string | null,
): Promise<AcquirerAnswer> {
  if (acquirer === null) return { came: 'unknown' };
  const reference = ofBusiness(business, payment);
  if (token === null) {
    const found = await acquirer.find(reference);
    if (found.came !== 'refusal') return found;
  }
  // Asked for, and it never arrived.
  const own = token ?? (holder === undefined ? null : await tokenOf(database, business, holder.id));
  if (own === null) return { came: 'refusal', message: 'the card is no longer on file' };
  const asked = { reference, amount, currency, sealed: '', token: own, capture: true, voice: '' };
  return await acquirer.authorise(asked);
}

/** What of it is still to be paid, by what stands on the customer's account. Minor units. */
async function leftOf(
  books: BookReader,
  business: string,
  invoice: Row<'invoices'>,
  today: string,
): Promise<number> {
  const account = `customer:${invoice.customer}`;
  const { balances, moves } = await heldMovesOf(books, business, [account]);
  const open = openItems(moves, balances[0] ?? 0, 0, today, (at) => at.slice(0, 10));
  return sum(open.flatMap((item) => (documentOf(item) === invoice.id ? item.left : [])));
}

/** What came of it is written, and it is due no more; both or neither. */
async function write(
  { database, now }: Taking,
  { business, invoice, attempt }: Due,
  drafts: readonly Draft[],
): Promise<true> {
  await writeOwn(database, business, now, async (transaction) => {
    const [there] = await select(
      database,
      'SELECT tries FROM charge_cards_due WHERE business = ? AND invoice = ? AND attempt = ?',
      [business, invoice, attempt],
      transaction,
    );
    // Another process was quicker: what it heard is the same.
    if (there === undefined) return [];
    await database.sequelize.query(
      'DELETE FROM charge_cards_due WHERE business = ? AND invoice = ? AND attempt = ?',
      { replacements: [business, invoice, attempt], transaction },
    );
    return drafts;
  });
  return true;
}

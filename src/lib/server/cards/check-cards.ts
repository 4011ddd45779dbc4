/**
 * What devices say the acquirer made of a card is compared with what it said to the server, and where that
 * is not the same, or the server has not heard, with what the acquirer itself says now. What differs is
 * doubted: it counts, and is a loose end.
 */
import type { Transaction } from 'sequelize';
import { entrySchema } from '../../core/daybook/entry';
import type { KnownEntry } from '../../core/daybook/kinds';
import { readEntry } from '../../core/daybook/read-entry';
import { cardClaim, isBorneOut, type CardClaim } from '../../core/payment/card-claims';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { verdictMessage } from '../words/entry-words';
import type { Acquirer } from './acquirer';
import { ofBusiness } from './card-route';
import { askedCard, noteAnswer } from './cards-asked';

const AT_ONCE = 100;
/** Of one business in a round, so that none holds up the others. */
const OF_EACH = 20;
const TRIED_AGAIN_AFTER = 60_000;

interface Due {
  readonly business: string;
  readonly entry: string;
  readonly payment: string;
}

/** @returns How many are left to be looked at. @param acquirer Null if nobody takes cards here. */
export async function checkCards(
  database: Database,
  acquirer: Acquirer | null,
  now: number,
): Promise<number> {
  const due = await select<Due>(
    database,
    `SELECT business, entry, payment FROM (
       SELECT business, entry, payment, dueAt,
         ROW_NUMBER() OVER (PARTITION BY business ORDER BY dueAt, entry) AS nth
       FROM cards_to_check WHERE dueAt <= ?) d
     WHERE nth <= ? ORDER BY dueAt LIMIT ?`,
    [now, OF_EACH, AT_ONCE],
  );
  for (const each of due) await checkOne(database, acquirer, each, now);
  const [left] = await select<{ n: string }>(
    database,
    'SELECT COUNT(*) AS n FROM cards_to_check',
    [],
  );
  return Number(left?.n ?? 0);
}

async function checkOne(
  database: Database,
  acquirer: Acquirer | null,
  due: Due,
  now: number,
): Promise<void> {
  const entry = await entryOf(database, due);
  const claim = entry === null ? null : cardClaim(entry);
  const found = claim === null ? true : await isTrue(database, acquirer, due, claim);
  if (found === 'unknown') {
    await database.sequelize.query(
      'UPDATE cards_to_check SET dueAt = ? WHERE business = ? AND entry = ?',
      { replacements: [now + TRIED_AGAIN_AFTER, due.business, due.entry] },
    );
    return;
  }
  await database.transaction(async (transaction) => {
    if (!found && entry !== null) await doubt(database, entry, transaction);
    await database.sequelize.query('DELETE FROM cards_to_check WHERE business = ? AND entry = ?', {
      replacements: [due.business, due.entry],
      transaction,
    });
  });
}

async function isTrue(
  database: Database,
  acquirer: Acquirer | null,
  { business, payment }: Due,
  claim: CardClaim,
): Promise<boolean | 'unknown'> {
  const asked = await askedCard(database, business, payment);
  if (asked !== null && isBorneOut(claim, { state: asked.state, amount: asked.answered }))
    return true;
  // Nobody takes cards for this server, so nobody can have said so.
  if (acquirer === null) return false;
  const said = await acquirer.find(ofBusiness(business, payment));
  if (said.came === 'unknown') return 'unknown';
  if (said.came === 'refusal') return isBorneOut(claim, null);
  await noteAnswer(database, business, payment, said.answer);
  return isBorneOut(claim, said.answer);
}

async function entryOf(
  database: Database,
  { business, entry: id }: Due,
): Promise<KnownEntry | null> {
  const [row] = await select<{ entry: string; state: string }>(
    database,
    'SELECT entry, state FROM daybook_entries WHERE business = ? AND id = ?',
    [business, id],
  );
  if (row?.state !== 'applied') return null;
  const read = readEntry(entrySchema.parse(JSON.parse(row.entry)));
  return read.ok ? read.entry : null;
}

async function doubt(
  { sequelize }: Database,
  entry: KnownEntry,
  transaction: Transaction,
): Promise<void> {
  const code = 'card/not-so' as const;
  const fault = { id: entry.id, code, message: verdictMessage(entry, { code }, 'doubted') };
  await sequelize.query(
    "UPDATE daybook_entries SET state = 'doubted', fault = ? " +
      "WHERE business = ? AND id = ? AND state = 'applied'",
    { replacements: [JSON.stringify(fault), entry.business, entry.id], transaction },
  );
}

/** A card that was charged, and that no device has written down a while later. */
export interface ChargedCard {
  readonly payment: string;
  readonly device: string;
  /** Minor units. */
  readonly amount: number;
  readonly at: string;
}

const WRITTEN_WITHIN = 3_600_000;

/** Of one business, oldest first; at most 50. @param now Milliseconds since 1970. */
export async function chargedUnwritten(
  database: Pick<Database, 'sequelize'>,
  business: string,
  now: number,
): Promise<ChargedCard[]> {
  const rows = await select<{ payment: string; device: string; answered: string; askedAt: string }>(
    database,
    `SELECT a.payment, a.device, a.answered, a.askedAt FROM cards_asked a
      LEFT JOIN books_card_payments c ON c.business = a.business AND c.id = a.payment
      WHERE a.business = ? AND a.state IN ('captured', 'authorised') AND a.askedAt < ? AND c.id IS NULL
      ORDER BY a.askedAt LIMIT 50`,
    [business, now - WRITTEN_WITHIN],
  );
  return rows.map(({ payment, device, answered, askedAt }) => ({
    payment,
    device,
    amount: Number(answered),
    at: new Date(Number(askedAt)).toISOString(),
  }));
}

/** Brings the database to the shape that this version needs, one migration after another. */
import type { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import type { Migration } from './migration';
import { select } from './select';
import { daybook } from './migrations/0001-daybook';
import { access } from './migrations/0002-access';
import { books } from './migrations/0003-books';
import { people } from './migrations/0004-people';
import { accounts } from './migrations/0005-accounts';
import { resets } from './migrations/0006-resets';
import { passkeys } from './migrations/0007-passkeys';
import { customers } from './migrations/0008-customers';
import { slips } from './migrations/0009-slips';
import { waysToPay } from './migrations/0010-ways-to-pay';
import { receipts } from './migrations/0011-receipts';
import { cardsOnFile } from './migrations/0012-cards-on-file';
import { signUpAgain } from './migrations/0013-sign-up-again';
import { nothingTrusted } from './migrations/0014-nothing-trusted';
import { tokensMoved } from './migrations/0015-tokens-moved';
import { startByIndex } from './migrations/0016-start-by-index';
import { longerMovements } from './migrations/0017-longer-movements';
import { whomItHolds } from './migrations/0018-whom-it-holds';
import { leftOnSlips } from './migrations/0019-left-on-slips';
import { voidsUndone } from './migrations/0020-voids-undone';
import { sumsMade } from './migrations/0021-sums-made';
import { groupsApart } from './migrations/0022-groups-apart';
import { salesByNumber } from './migrations/0023-sales-by-number';
import { stockAndLists } from './migrations/0024-stock-and-lists';
import { calendars } from './migrations/0025-calendars';
import { cashBetween } from './migrations/0026-cash-between';
import { settling } from './migrations/0027-settling';
import { bank } from './migrations/0028-bank';
import { makersMail } from './migrations/0029-makers-mail';
import { returns } from './migrations/0030-returns';
import { refunds } from './migrations/0033-refunds';
import { held } from './migrations/0035-held';
import { orders } from './migrations/0036-orders';
import { points } from './migrations/0037-points';
import { customerMatters } from './migrations/0038-customer-matters';
import { invoices } from './migrations/0039-invoices';
import { joinedCustomers } from './migrations/0040-joined-customers';
import { vouchersForOnePurpose } from './migrations/0041-vouchers-for-one-purpose';
import { standingCharges } from './migrations/0042-standing-charges';
import { whatIsMailed } from './migrations/0043-what-is-mailed';
import { unreadOrUnfit } from './migrations/0044-unread-or-unfit';
import { find } from './migrations/0034-find';
import { corrections } from './migrations/0032-corrections';
import { exchanges } from './migrations/0031-exchanges';

const migrations: readonly Migration[] = [
  daybook,
  access,
  books,
  people,
  accounts,
  resets,
  passkeys,
  customers,
  slips,
  waysToPay,
  receipts,
  cardsOnFile,
  signUpAgain,
  nothingTrusted,
  tokensMoved,
  startByIndex,
  longerMovements,
  whomItHolds,
  leftOnSlips,
  voidsUndone,
  sumsMade,
  groupsApart,
  salesByNumber,
  stockAndLists,
  calendars,
  cashBetween,
  settling,
  bank,
  makersMail,
  returns,
  exchanges,
  corrections,
  refunds,
  find,
  held,
  orders,
  points,
  customerMatters,
  invoices,
  joinedCustomers,
  vouchersForOnePurpose,
  standingCharges,
  whatIsMailed,
  unreadOrUnfit,
];
const LOCK = 'stall-till-migrations';
const LOCK_WAIT_SECONDS = 60;

/**
 * Runs what has not run yet. Several processes may call it at once: one does the work.
 * @returns Names of the migrations that ran.
 */
export async function migrate(sequelize: Sequelize): Promise<string[]> {
  // GET_LOCK belongs to a connection, so this transaction only holds one open.
  return await sequelize.transaction(async (transaction) => {
    const lock = 'SELECT GET_LOCK(?, ?) AS held';
    const wait = [LOCK, LOCK_WAIT_SECONDS];
    const [got] = await select<{ held: number | null }>({ sequelize }, lock, wait, transaction);
    if (Number(got?.held) !== 1) throw new Error('another process is still changing the database');
    try {
      const umzug = new Umzug({
        migrations: migrations.map(({ name, statements }) => ({
          name,
          up: async () => {
            for (const statement of statements) await sequelize.query(statement);
          },
        })),
        storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
        logger: undefined,
      });
      const ran = await umzug.up();
      return ran.map(({ name }) => name);
    } finally {
      await sequelize.query('SELECT RELEASE_LOCK(?)', { replacements: [LOCK], transaction });
    }
  });
}

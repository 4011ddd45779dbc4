/** Owners: signing up, in and out, and the sessions that come of it. */
import { randomBytes } from 'node:crypto';
import { QueryTypes, type Transaction } from 'sequelize';
import { v4 } from 'uuid';
import type { Database } from '../database/database';
import { databaseErrorNumber } from '../database/database';
import { select } from '../database/select';
import type { Enrolment } from './enrolment';
import { hashPassword, isPassword, lookAtNothing } from './passwords';
import { setPassword } from './set-password';
import { sha256 } from '../sha-256';

/** An owner who has shown a session's token. */
export interface KnownOwner {
  readonly owner: string;
  readonly business: string;
  /** The session itself, for telling it from the others. */
  readonly session: string;
}

/** An owner as of a request. */
export interface OwnerHere extends KnownOwner {
  /** They showed the password or a passkey a short while ago; what cannot be undone asks for it. */
  readonly isFresh: boolean;
}

export interface Session {
  readonly id: string;
  readonly made: string;
  readonly seen: string;
  readonly agent: string;
}

export interface SignUp {
  readonly email: string;
  readonly password: string;
  readonly device: string;
  /** The first device's token. */
  readonly token: string;
  /** Random, of this sign-up alone and kept by whoever asked first: what a repeated one proves itself by. */
  readonly key: string;
}

/** Whose account it is, as the server has it; what a session is begun with. */
export interface AccountRef {
  readonly owner: string;
  readonly business: string;
  /** The hash of the password that was shown; a session begins only while it is still that one. */
  readonly password: string;
}

export type SignedUp =
  | {
      readonly ok: true;
      readonly business: string;
      readonly number: number;
      readonly account: AccountRef;
    }
  | { readonly ok: false; readonly refusal: { readonly code: 'email/taken' } };

/** Sessions end after this long without a sign of life, and after `LONGEST` whatever happens. */
const IDLE = 14 * 86_400_000;
const LONGEST = 90 * 86_400_000;
/** An answer that was lost is asked for again within this. */
const SIGN_UP_LASTS = 24 * 3_600_000;
/** How long a proof is fresh enough for what cannot be undone. */
const FRESH = 10 * 60_000;
const NOTE_SEEN_EVERY = 5 * 60_000;
const DUPLICATE = 1062;

export class Accounts {
  constructor(
    readonly database: Database,
    readonly enrolment: Enrolment,
  ) {}

  /**
   * Makes a business, its owner and its first device, all or nothing. Asked again within a day with
   * the same key, device, token and password it answers the same, since an answer can be lost on its way.
   */
  async signUp(command: SignUp, now: number): Promise<SignedUp> {
    const email = normal(command.email);
    const password = await hashPassword(command.password);
    try {
      return await this.database.transaction(async (transaction): Promise<SignedUp> => {
        const known = await this.#byEmail(email, transaction);
        if (known !== undefined) return await this.#again(known, command, now);
        const account = { owner: v4(), business: v4(), password };
        const { owner, business } = account;
        const { device, token, key } = command;
        await this.#run(
          'INSERT INTO access_owners (owner, business, email, password, made, askedWith) ' +
            'VALUES (?, ?, ?, ?, ?, ?)',
          [owner, business, email, password, iso(now), sha256(key)],
          transaction,
        );
        const number = await this.enrolment.enrolFirst(business, device, token, transaction);
        return { ok: true, business, number, account };
      });
    } catch (error) {
      if (databaseErrorNumber(error) !== DUPLICATE) throw error;
      // Somebody was faster: another one, or the same asker, twice at once.
      const known = await this.#byEmail(email);
      return known === undefined ? TAKEN : await this.#again(known, command, now);
    }
  }

  async #again(
    known: OwnerRow,
    { password, device, token, key }: SignUp,
    now: number,
  ): Promise<SignedUp> {
    const isAsker = known.askedWith === sha256(key) && known.made > iso(now - SIGN_UP_LASTS);
    if (!isAsker || !(await isPassword(known.password, password))) return TAKEN;
    const first = await this.enrolment.identify(token);
    const isFirst =
      typeof first === 'object' &&
      first.device === device &&
      first.business === known.business &&
      !first.isShutOut;
    return isFirst
      ? { ok: true, business: known.business, number: first.number, account: known }
      : TAKEN;
  }

  /** The account of an address and password, or null; takes as long either way. */
  async ownerOf(email: string, password: string): Promise<AccountRef | null> {
    const known = await this.#byEmail(normal(email));
    if (known === undefined) {
      await lookAtNothing(password);
      return null;
    }
    return (await isPassword(known.password, password)) ? known : null;
  }

  /**
   * Begins a session of a stored account, unless its password was changed since it was shown.
   * @returns The session's token, of which only a hash is kept; null if it was changed.
   */
  async begin(account: AccountRef, agent: string, now: number): Promise<string | null> {
    const token = randomBytes(32).toString('hex');
    const [, made] = await this.database.sequelize.query(
      'INSERT INTO access_sessions (token, id, owner, business, made, seen, proved, expires, agent) ' +
        'SELECT ?, ?, owner, business, ?, ?, ?, ?, ? FROM access_owners WHERE owner = ? AND password = ?',
      {
        replacements: [
          sha256(token),
          v4(),
          iso(now),
          iso(now),
          iso(now),
          iso(now + LONGEST),
          agent.slice(0, 200),
          account.owner,
          account.password,
        ],
        type: QueryTypes.INSERT,
      },
    );
    return made === 1 ? token : null;
  }

  /** Whose session a token is, if it has not ended. */
  async identify(token: string, now: number): Promise<OwnerHere | null> {
    const sql =
      'SELECT id, owner, business, seen, proved FROM access_sessions ' +
      'WHERE token = ? AND expires > ? AND seen > ?';
    const [row] = await select<SessionRow>(this.database, sql, [
      sha256(token),
      iso(now),
      iso(now - IDLE),
    ]);
    if (row === undefined) return null;
    if (row.seen < iso(now - NOTE_SEEN_EVERY)) {
      await this.#run('UPDATE access_sessions SET seen = ? WHERE token = ?', [
        iso(now),
        sha256(token),
      ]);
    }
    const { id, owner, business, proved } = row;
    return { owner, business, session: id, isFresh: proved > iso(now - FRESH) };
  }

  /** Notes that the owner has just shown the password. @returns False if it was not the one. */
  async prove({ owner, session }: KnownOwner, password: string, now: number): Promise<boolean> {
    const sql = 'SELECT password FROM access_owners WHERE owner = ?';
    const [row] = await select<{ password: string }>(this.database, sql, [owner]);
    if (row === undefined || !(await isPassword(row.password, password))) return false;
    await this.#run('UPDATE access_sessions SET proved = ? WHERE owner = ? AND id = ?', [
      iso(now),
      owner,
      session,
    ]);
    return true;
  }

  /** The owner's address, and whether it was shown to be theirs. */
  async addressOf({
    owner,
  }: Pick<KnownOwner, 'owner'>): Promise<{ readonly email: string; readonly isVerified: boolean }> {
    const sql = 'SELECT email, verified FROM access_owners WHERE owner = ?';
    const [row] = await select<{ email: string; verified: string | null }>(this.database, sql, [
      owner,
    ]);
    return { email: row?.email ?? '', isVerified: (row?.verified ?? null) !== null };
  }

  /** The owner's sessions that are still good, newest first. */
  async sessions({ owner }: KnownOwner, now: number): Promise<Session[]> {
    return await select<Session>(
      this.database,
      'SELECT id, made, seen, agent FROM access_sessions WHERE owner = ? AND expires > ? AND seen > ? ' +
        'ORDER BY made DESC, id',
      [owner, iso(now), iso(now - IDLE)],
    );
  }

  /** Ends one of the owner's own sessions. @returns Whether there was such a one. */
  async end({ owner }: KnownOwner, session: string): Promise<boolean> {
    const sql = 'DELETE FROM access_sessions WHERE owner = ? AND id = ?';
    const [result] = await this.database.sequelize.query(sql, { replacements: [owner, session] });
    return (result as { affectedRows?: number }).affectedRows === 1;
  }

  /**
   * Sets another password and ends all that the old one opened: every other session, links that were
   * asked for, browsers that are known; passkeys as well if that is wanted.
   * @returns False if `current` is not the one.
   */
  async changePassword(
    known: KnownOwner,
    current: string,
    next: string,
    removePasskeys = false,
  ): Promise<boolean> {
    const password = await hashPassword(next);
    return await this.database.transaction(async (transaction) => {
      const sql = 'SELECT password FROM access_owners WHERE owner = ? FOR UPDATE';
      const [row] = await select<{ password: string }>(
        this.database,
        sql,
        [known.owner],
        transaction,
      );
      if (row === undefined || !(await isPassword(row.password, current))) return false;
      await setPassword(this.database, known.owner, password, { removePasskeys, transaction });
      await this.#run(
        'DELETE FROM access_sessions WHERE owner = ? AND id <> ?',
        [known.owner, known.session],
        transaction,
      );
      return true;
    });
  }

  /** An owner for a business that is there already: the demo's, or from the command line. */
  async addOwner(business: string, email: string, password: string, now: number): Promise<void> {
    if ((await this.#byEmail(normal(email))) !== undefined) return;
    await this.#run(
      'INSERT INTO access_owners (owner, business, email, password, made, verified) VALUES (?, ?, ?, ?, ?, ?)',
      [v4(), business, normal(email), await hashPassword(password), iso(now), iso(now)],
    );
  }

  async #byEmail(email: string, transaction?: Transaction): Promise<OwnerRow | undefined> {
    const sql =
      'SELECT owner, business, password, askedWith, made FROM access_owners WHERE email = ?';
    const [row] = await select<OwnerRow>(this.database, sql, [email], transaction);
    return row;
  }

  async #run(sql: string, replacements: unknown[], transaction?: Transaction): Promise<void> {
    await this.database.sequelize.query(sql, {
      replacements,
      ...(transaction === undefined ? {} : { transaction }),
    });
  }
}

interface OwnerRow extends AccountRef {
  readonly askedWith: string;
  readonly made: string;
}

interface SessionRow {
  readonly id: string;
  readonly owner: string;
  readonly business: string;
  readonly seen: string;
  readonly proved: string;
}

const TAKEN: SignedUp = { ok: false, refusal: { code: 'email/taken' } };
const normal = (email: string): string => email.trim().toLowerCase();
const iso = (at: number): string => new Date(at).toISOString();

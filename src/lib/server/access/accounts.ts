/** Owners: signing up, in and out, and the sessions that come of it. */
import { createHash, randomBytes } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { v4 } from 'uuid';
import type { Database } from '../database/database';
import { databaseErrorNumber } from '../database/database';
import { select } from '../database/select';
import type { Enrolment } from './enrolment';
import { hashPassword, isPassword, lookAtNothing } from './passwords';

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
  readonly owner: string;
  readonly email: string;
  readonly password: string;
  readonly device: string;
  /** The first device's token. */
  readonly token: string;
}

export type SignedUp =
  | { readonly ok: true; readonly business: string; readonly number: number }
  | { readonly ok: false; readonly refusal: { readonly code: 'email/taken' } };

/** Sessions end after this long without a sign of life, and after `LONGEST` whatever happens. */
const IDLE = 14 * 86_400_000;
const LONGEST = 90 * 86_400_000;
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
   * Makes a business, its owner and its first device, all or nothing. Asked again by the same device
   * with the same token it answers the same, since an answer can be lost on its way.
   */
  async signUp(command: SignUp, now: number): Promise<SignedUp> {
    const email = normal(command.email);
    const password = await hashPassword(command.password);
    try {
      return await this.database.transaction(async (transaction): Promise<SignedUp> => {
        const known = await this.#byEmail(email, transaction);
        if (known !== undefined) return await this.#again(known, command);
        const business = v4();
        await this.#run(
          'INSERT INTO access_owners (owner, business, email, password, made) VALUES (?, ?, ?, ?, ?)',
          [command.owner, business, email, password, iso(now)],
          transaction,
        );
        const { device, token } = command;
        const number = await this.enrolment.enrolFirst(business, device, token, transaction);
        return { ok: true, business, number };
      });
    } catch (error) {
      if (databaseErrorNumber(error) === DUPLICATE) return TAKEN;
      throw error;
    }
  }

  async #again(known: OwnerRow, { password, device, token }: SignUp): Promise<SignedUp> {
    const first = await this.enrolment.identify(token);
    const isSame =
      typeof first === 'object' &&
      first.device === device &&
      first.business === known.business &&
      (await isPassword(known.password, password));
    return isSame ? { ok: true, business: known.business, number: first.number } : TAKEN;
  }

  /** The owner of an address and password, or null; takes as long either way. */
  async ownerOf(email: string, password: string): Promise<Omit<KnownOwner, 'session'> | null> {
    const known = await this.#byEmail(normal(email));
    if (known === undefined) {
      await lookAtNothing(password);
      return null;
    }
    const { owner, business } = known;
    return (await isPassword(known.password, password)) ? { owner, business } : null;
  }

  /** @returns The session's token; only a hash of it is kept. */
  async begin(
    { owner, business }: Omit<KnownOwner, 'session'>,
    agent: string,
    now: number,
  ): Promise<string> {
    const token = randomBytes(32).toString('hex');
    await this.#run(
      'INSERT INTO access_sessions (token, id, owner, business, made, seen, proved, expires, agent) ' +
        'VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
      [
        hashOf(token),
        v4(),
        owner,
        business,
        iso(now),
        iso(now),
        iso(now),
        iso(now + LONGEST),
        agent.slice(0, 200),
      ],
    );
    return token;
  }

  /** Whose session a token is, if it has not ended. */
  async identify(token: string, now: number): Promise<OwnerHere | null> {
    const sql =
      'SELECT id, owner, business, seen, proved FROM access_sessions ' +
      'WHERE token = ? AND expires > ? AND seen > ?';
    const [row] = await select<SessionRow>(this.database, sql, [
      hashOf(token),
      iso(now),
      iso(now - IDLE),
    ]);
    if (row === undefined) return null;
    if (row.seen < iso(now - NOTE_SEEN_EVERY)) {
      await this.#run('UPDATE access_sessions SET seen = ? WHERE token = ?', [
        iso(now),
        hashOf(token),
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

  async emailOf({ owner }: KnownOwner): Promise<string> {
    const sql = 'SELECT email FROM access_owners WHERE owner = ?';
    const [row] = await select<{ email: string }>(this.database, sql, [owner]);
    return row?.email ?? '';
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

  /** Sets another password and ends every other session. @returns False if `current` is not the one. */
  async changePassword(known: KnownOwner, current: string, next: string): Promise<boolean> {
    const sql = 'SELECT password FROM access_owners WHERE owner = ?';
    const [row] = await select<{ password: string }>(this.database, sql, [known.owner]);
    if (row === undefined || !(await isPassword(row.password, current))) return false;
    const password = await hashPassword(next);
    await this.database.transaction(async (transaction) => {
      await this.#run(
        'UPDATE access_owners SET password = ? WHERE owner = ?',
        [password, known.owner],
        transaction,
      );
      await this.#run(
        'DELETE FROM access_sessions WHERE owner = ? AND id <> ?',
        [known.owner, known.session],
        transaction,
      );
    });
    return true;
  }

  /** An owner for a business that is there already: the demo's, or from the command line. */
  async addOwner(business: string, email: string, password: string, now: number): Promise<void> {
    if ((await this.#byEmail(normal(email))) !== undefined) return;
    await this.#run(
      'INSERT INTO access_owners (owner, business, email, password, made) VALUES (?, ?, ?, ?, ?)',
      [v4(), business, normal(email), await hashPassword(password), iso(now)],
    );
  }

  async #byEmail(email: string, transaction?: Transaction): Promise<OwnerRow | undefined> {
    const sql = 'SELECT owner, business, password FROM access_owners WHERE email = ?';
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

interface OwnerRow {
  readonly owner: string;
  readonly business: string;
  readonly password: string;
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
const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

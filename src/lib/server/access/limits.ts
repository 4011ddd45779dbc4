/** Limits on tries, counted in MariaDB so that all application processes share them. */
import { RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible';
import type { Database } from '../database/database';
import { sha256 } from '../sha-256';

const MINUTE = 60;
const HOUR = 60 * MINUTE;

/**
 * What may be tried how often: `points` in `duration` seconds. With a `blockDuration` nothing is looked
 * at for that long after the last point, so it must not be shorter than what it stands for; without one
 * the count goes on until its time is over.
 */
const RULES = {
  /** Signing in, by account and address it is tried from. */
  password: { points: 8, duration: 15 * MINUTE, blockDuration: 15 * MINUTE },
  /** By address alone: one guess at each of many accounts. */
  spraying: { points: 60, duration: 15 * MINUTE, blockDuration: 15 * MINUTE },
  /** By account, wherever it is tried from: a guess spread over many addresses; sixty a day. */
  account: { points: 10, duration: 4 * HOUR },
  /** By a browser that its owner has signed in on before; strangers cannot use this lane up. */
  known: { points: 10, duration: 15 * MINUTE, blockDuration: 15 * MINUTE },
  /** Ten letters of thirty-two: a thousand years at this pace. */
  code: { points: 20, duration: 15 * MINUTE, blockDuration: 15 * MINUTE },
  /** Asking for a link: by address it is asked from, and letters to one mailbox. */
  forgot: { points: 10, duration: HOUR, blockDuration: HOUR },
  letters: { points: 3, duration: HOUR, blockDuration: HOUR },
  /** Signing in with a passkey, by address; nothing can be guessed, so this only bounds the work. */
  passkey: { points: 60, duration: 15 * MINUTE, blockDuration: 5 * MINUTE },
  /** Links by mail that set a password or show whose an address is, by address they are tried from. */
  link: { points: 20, duration: 15 * MINUTE, blockDuration: 15 * MINUTE },
  /** A device that starts from the beginning; once is usual. */
  start: { points: 20, duration: HOUR },
  /** A device that looks for old sales, word by word of what is typed. */
  find: { points: 60, duration: MINUTE },
  /** Addresses of calendars that are not there, by address they are tried from. */
  calendar: { points: 30, duration: 15 * MINUTE, blockDuration: 15 * MINUTE },
  signUp: { points: 10, duration: HOUR, blockDuration: HOUR },
  passwordChange: { points: 8, duration: 15 * MINUTE, blockDuration: 15 * MINUTE },
} as const;
export type Rule = keyof typeof RULES;

export class Limits {
  readonly #limiters: Readonly<Record<Rule, RateLimiterMySQL>>;

  constructor({ sequelize }: Database) {
    const make = (rule: Rule): RateLimiterMySQL =>
      new RateLimiterMySQL({
        storeClient: sequelize,
        storeType: 'sequelize',
        dbName: sequelize.getDatabaseName(),
        tableName: 'access_tries',
        tableCreated: true,
        keyPrefix: rule,
        clearExpiredByTimeout: false,
        ...RULES[rule],
      });
    this.#limiters = Object.fromEntries(
      (Object.keys(RULES) as Rule[]).map((rule) => [rule, make(rule)]),
    ) as Record<Rule, RateLimiterMySQL>;
  }

  /** Counts one try. @returns Seconds to wait before the next, or 0 if this one may go on. */
  async count(rule: Rule, who: string): Promise<number> {
    try {
      await this.#limiters[rule].consume(keyOf(who));
      return 0;
    } catch (error) {
      if (error instanceof RateLimiterRes) return Math.max(1, Math.ceil(error.msBeforeNext / 1000));
      throw error;
    }
  }

  /** Gives one try back, after one that was right: what was wrong before it still counts. */
  async giveBack(rule: Rule, who: string): Promise<void> {
    await this.#limiters[rule].reward(keyOf(who), 1);
  }

  /** Forgets the tries, after the secret itself was shown. */
  async forget(rule: Rule, who: string): Promise<void> {
    await this.#limiters[rule].delete(keyOf(who));
  }
}

/** No address or e-mail stands in the table. */
const keyOf = (who: string): string => sha256(who).slice(0, 40);

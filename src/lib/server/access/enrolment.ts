/** Enrolling devices: a short-lived code makes one device of a business, with a token of its own. */
import { randomInt } from 'node:crypto';
import type { Transaction } from 'sequelize';
import type { EnrolAnswer } from '../../core/daybook/sync-messages';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { modelsOn, type EnrolledDevice, type Models } from '../database/models';
import { sha256 } from '../sha-256';

/** Letters and figures that cannot be taken for one another. */
const ALPHABET = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';
const CODE_LENGTH = 10;

/** Why a code does not enrol. */
export type EnrolRefusal =
  | { readonly code: 'code/unknown' }
  | { readonly code: 'code/expired' }
  | { readonly code: 'code/used' }
  | { readonly code: 'device/known' };

export type EnrolOutcome =
  | ({ readonly ok: true } & EnrolAnswer)
  | { readonly ok: false; readonly refusal: EnrolRefusal };

/** A device that has shown a valid token. */
export interface KnownDevice {
  readonly business: string;
  readonly device: string;
  readonly number: number;
  readonly isShutOut: boolean;
}

export class Enrolment {
  readonly #models: Models;

  constructor(readonly database: Database) {
    this.#models = modelsOn(database.sequelize);
  }

  /**
   * Makes a code for one device. Only its hash is kept, so it can be read this once.
   * @param lifetime Milliseconds.
   */
  async makeCode(business: string, now: number, lifetime: number): Promise<string> {
    const code = Array.from(
      { length: CODE_LENGTH },
      () => ALPHABET[randomInt(ALPHABET.length)],
    ).join('');
    const expires = new Date(now + lifetime).toISOString();
    await this.#models.codes.create({ code: hashOfCode(code), business, expires, usedBy: null });
    return `${code.slice(0, 5)}-${code.slice(5)}`;
  }

  /**
   * Enrols a device. Asked again with the same code, device and token it answers the same again,
   * since an answer can be lost on its way.
   */
  async enrol(code: string, device: string, token: string, now: number): Promise<EnrolOutcome> {
    const hashed = hashOfCode(code);
    return await this.database.transaction(async (transaction): Promise<EnrolOutcome> => {
      const lock = { transaction, lock: transaction.LOCK.UPDATE };
      const found = await this.#models.codes.findOne({ where: { code: hashed }, ...lock });
      if (found === null) return refuse('code/unknown');
      const { business } = found;
      const known = await this.#models.devices.findOne({ where: { device }, transaction });
      if (known !== null) {
        const isSame = known.token === hashOfToken(token) && known.code === hashed;
        return isSame ? { ok: true, business, number: known.number } : refuse('device/known');
      }
      if (found.usedBy !== null) return refuse('code/used');
      if (found.expires <= new Date(now).toISOString()) return refuse('code/expired');
      const number = await this.#nextNumber(business, transaction);
      const row = { business, device, number, token: hashOfToken(token), code: hashed };
      await this.#models.devices.create(row, { transaction });
      await found.update({ usedBy: device }, { transaction });
      return { ok: true, business, number };
    });
  }

  /** Enrols the device that a business is founded on, without a code. @returns Its number. */
  async enrolFirst(
    business: string,
    device: string,
    token: string,
    transaction: Transaction,
  ): Promise<number> {
    const row = { business, device, number: 1, token: hashOfToken(token), code: '' };
    await this.#models.devices.create(row, { transaction });
    return row.number;
  }

  /** The device of a token, or why there is none. */
  async identify(token: string): Promise<KnownDevice | 'unknown'> {
    const found: EnrolledDevice | null = await this.#models.devices.findOne({
      where: { token: hashOfToken(token) },
    });
    if (found === null) return 'unknown';
    const { business, device, number, isShutOut } = found;
    return { business, device, number, isShutOut };
  }

  /** Numbers are never used again, also not those of devices that were shut out. */
  async #nextNumber(business: string, transaction: Transaction): Promise<number> {
    const [row] = await select<{ last: number | null }>(
      this.database,
      'SELECT MAX(number) AS last FROM access_devices WHERE business = ? FOR UPDATE',
      [business],
      transaction,
    );
    return (row?.last ?? 0) + 1;
  }
}

const refuse = (code: EnrolRefusal['code']): EnrolOutcome => ({ ok: false, refusal: { code } });

/** However it was typed: dashes, blanks and case do not count. */
const hashOfCode = (code: string): string => sha256(code.toUpperCase().replace(/[^A-Z0-9]/g, ''));
const hashOfToken = (token: string): string => sha256(token);

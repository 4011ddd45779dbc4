/**
 * Passkeys (W3C Web Authentication): a second way in for owners. What is asked to be signed stands
 * in the database, so that any process can check the answer; it is good once and for five minutes.
 */
import { randomBytes } from 'node:crypto';
import type {
  AuthenticationResponseJSON,
  AuthenticatorTransport,
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
  RegistrationResponseJSON,
} from '@simplewebauthn/server';
import { v4 } from 'uuid';
import { z } from 'zod';
import { databaseErrorNumber, type Database } from '../database/database';
import { select } from '../database/select';
import type { AccountRef, KnownOwner } from './accounts';
import { sha256 } from '../sha-256';

/** Read when somebody uses a passkey: it takes as long as a third of all else that a server reads to begin. */
const webAuthn = () => import('@simplewebauthn/server');

const LIFETIME = 5 * 60_000;
const DUPLICATE = 1062;
/** More than anybody has keys; bounds what a stolen session can fill. */
const MOST_PASSKEYS = 20;

/** Where passkeys are good: the host by name, and the address of our own pages. */
export interface RelyingParty {
  readonly id: string;
  readonly origin: string;
}

export interface Passkey {
  readonly id: string;
  readonly name: string;
  readonly made: string;
  /** When it was used last, or null. */
  readonly seen: string | null;
}

export type PasskeyRefusal =
  | { readonly code: 'passkey/wrong' }
  | { readonly code: 'passkey/unknown' }
  | { readonly code: 'passkey/known' }
  | { readonly code: 'passkey/too-many' }
  /** Its counter went back: there is a copy of it. */
  | { readonly code: 'passkey/copied' };

export class Passkeys {
  constructor(readonly database: Database) {}

  /** What the owner's browser is asked to make a passkey from. */
  async beginAdding(
    { owner }: KnownOwner,
    email: string,
    party: RelyingParty,
    now: number,
  ): Promise<PublicKeyCredentialCreationOptionsJSON> {
    const known = await this.#rows(owner);
    const { generateRegistrationOptions } = await webAuthn();
    return await generateRegistrationOptions({
      rpName: 'Stall Till',
      rpID: party.id,
      userID: new TextEncoder().encode(owner),
      userName: email,
      challenge: await this.#challenge(owner, now),
      excludeCredentials: known.map(({ credential }) => ({ id: credential })),
      authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
      attestationType: 'none',
    });
  }

  /** Keeps the passkey that the browser made. @returns What is wrong with it, or null. */
  async add(
    { owner }: KnownOwner,
    name: string,
    response: RegistrationResponseJSON,
    party: RelyingParty,
    now: number,
  ): Promise<PasskeyRefusal | null> {
    if (!(await this.#useUp(challengeIn(response.response.clientDataJSON), owner, now)))
      return { code: 'passkey/wrong' };
    if ((await this.#rows(owner)).length >= MOST_PASSKEYS) return { code: 'passkey/too-many' };
    const { verifyRegistrationResponse } = await webAuthn();
    const made = await verifyRegistrationResponse({
      response,
      expectedChallenge: () => true,
      expectedOrigin: party.origin,
      expectedRPID: party.id,
      requireUserVerification: true,
    }).catch(() => null);
    if (made?.verified !== true) return { code: 'passkey/wrong' };
    const { credential } = made.registrationInfo;
    try {
      await this.#run(
        'INSERT INTO access_passkeys (credential, id, owner, publicKey, counter, transports, name, made) ' +
          'VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
        [
          credential.id,
          v4(),
          owner,
          Buffer.from(credential.publicKey).toString('base64url'),
          credential.counter,
          JSON.stringify(credential.transports ?? []),
          name,
          iso(now),
        ],
      );
    } catch (error) {
      if (databaseErrorNumber(error) === DUPLICATE) return { code: 'passkey/known' };
      throw error;
    }
    return null;
  }

  /** What any passkey of this host is asked to sign; nobody has said yet who they are. */
  async beginSignIn(
    party: RelyingParty,
    now: number,
  ): Promise<PublicKeyCredentialRequestOptionsJSON> {
    const { generateAuthenticationOptions } = await webAuthn();
    return await generateAuthenticationOptions({
      rpID: party.id,
      challenge: await this.#challenge(null, now),
      userVerification: 'required',
    });
  }

  /** Whose passkey signed, or why it does not count. */
  async ownerOf(
    response: AuthenticationResponseJSON,
    party: RelyingParty,
    now: number,
  ): Promise<AccountRef | PasskeyRefusal> {
    if (!(await this.#useUp(challengeIn(response.response.clientDataJSON), null, now)))
      return { code: 'passkey/wrong' };
    const [known] = await select<PasskeyRow & AccountRef>(
      this.database,
      'SELECT p.credential, p.publicKey, p.counter, p.transports, p.owner, o.business, o.password ' +
        'FROM access_passkeys p JOIN access_owners o ON o.owner = p.owner WHERE p.credential = ?',
      [response.id],
    );
    if (known === undefined) return { code: 'passkey/unknown' };
    const counter = Number(known.counter);
    const { verifyAuthenticationResponse } = await webAuthn();
    const signed = await verifyAuthenticationResponse({
      response,
      expectedChallenge: () => true,
      expectedOrigin: party.origin,
      expectedRPID: party.id,
      requireUserVerification: true,
      credential: {
        id: known.credential,
        publicKey: new Uint8Array(Buffer.from(known.publicKey, 'base64url')),
        // Looked at below, where a step back can be told from a wrong signature.
        counter: 0,
        transports: JSON.parse(known.transports) as AuthenticatorTransport[],
      },
    }).catch(() => null);
    if (signed?.verified !== true) return { code: 'passkey/wrong' };
    const { newCounter } = signed.authenticationInfo;
    // Most passkeys do not count and stay at 0; one that counts never counts back.
    if ((newCounter > 0 || counter > 0) && newCounter <= counter) return { code: 'passkey/copied' };
    await this.#run('UPDATE access_passkeys SET counter = ?, seen = ? WHERE credential = ?', [
      newCounter,
      iso(now),
      known.credential,
    ]);
    return { owner: known.owner, business: known.business, password: known.password };
  }

  /** The owner's passkeys, oldest first. */
  async of({ owner }: Pick<KnownOwner, 'owner'>): Promise<Passkey[]> {
    const sql =
      'SELECT id, name, made, seen FROM access_passkeys WHERE owner = ? ORDER BY made, id';
    return await select<Passkey>(this.database, sql, [owner]);
  }

  /** Forgets one of the owner's own. @returns Whether there was such a one. */
  async remove({ owner }: KnownOwner, id: string): Promise<boolean> {
    const sql = 'DELETE FROM access_passkeys WHERE owner = ? AND id = ?';
    return (await this.#run(sql, [owner, id])) === 1;
  }

  async #rows(owner: string): Promise<PasskeyRow[]> {
    const sql =
      'SELECT credential, publicKey, counter, transports FROM access_passkeys WHERE owner = ?';
    return await select<PasskeyRow>(this.database, sql, [owner]);
  }

  /** Something new to sign; what has run out is cleared on the way. */
  async #challenge(owner: string | null, now: number): Promise<Uint8Array<ArrayBuffer>> {
    const challenge = new Uint8Array(randomBytes(32));
    await this.#run('DELETE FROM access_challenges WHERE expires <= ?', [iso(now)]);
    await this.#run('INSERT INTO access_challenges (challenge, owner, expires) VALUES (?, ?, ?)', [
      sha256(Buffer.from(challenge).toString('base64url')),
      owner,
      iso(now + LIFETIME),
    ]);
    return challenge;
  }

  /** Whether it was asked by us, of this owner, and not yet answered. */
  async #useUp(challenge: string, owner: string | null, now: number): Promise<boolean> {
    const sql = 'DELETE FROM access_challenges WHERE challenge = ? AND owner <=> ? AND expires > ?';
    return (await this.#run(sql, [sha256(challenge), owner, iso(now)])) === 1;
  }

  async #run(sql: string, replacements: unknown[]): Promise<number> {
    const [result] = await this.database.sequelize.query(sql, { replacements });
    return (result as { affectedRows?: number }).affectedRows ?? 0;
  }
}

interface PasskeyRow {
  readonly credential: string;
  readonly publicKey: string;
  /** BIGINT, as text. */
  readonly counter: string;
  readonly transports: string;
}

const clientData = z.object({ challenge: z.string().max(200) });

/** The challenge that the browser says it signed; the signature over it is checked afterwards. */
function challengeIn(clientDataJSON: string): string {
  try {
    const text = Buffer.from(clientDataJSON, 'base64url').toString('utf8');
    return clientData.parse(JSON.parse(text)).challenge;
  } catch {
    return '';
  }
}

const iso = (at: number): string => new Date(at).toISOString();

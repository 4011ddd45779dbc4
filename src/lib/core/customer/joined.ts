/**
 * Records of customers that are of one person. Joining moves nothing: what was said on a record stays there, and whoever
 * asks for what a person has asks for it on all of theirs. So it holds whatever other devices still say of either, and
 * can be taken back (docs/decisions/0037).
 */
import type { Row } from '../books/tables';

export type JoinedRow = Pick<Row<'customers'>, 'id' | 'joinedInto' | 'isErased'>;

/** Accounts that are a customer's own; a voucher's and an order's are not. */
const OWN = /^(customer|credit|points):(.+)$/;

export class Joined {
  readonly #into = new Map<string, string>();
  readonly #from = new Map<string, string[]>();

  /** @param rows Those that are joined, and what they are joined to; others may be among them. */
  constructor(rows: readonly JoinedRow[]) {
    const joined = rows.filter(({ joinedInto }) => joinedInto !== null);
    if (joined.length === 0) return;
    // Nothing is known of somebody who was forgotten: nobody is one with them.
    const there = new Set(rows.flatMap(({ id, isErased }) => (isErased ? [] : [id])));
    for (const { id, joinedInto } of joined) {
      if (joinedInto === null || !there.has(id) || !there.has(joinedInto)) continue;
      this.#into.set(id, joinedInto);
      this.#from.set(joinedInto, [...(this.#from.get(joinedInto) ?? []), id]);
    }
  }

  get isEmpty(): boolean {
    return this.#into.size === 0;
  }

  /** The record that a person goes by. Where two devices out of touch joined in a circle, its smallest id. */
  of(customer: string): string {
    const way = this.wayOf(customer);
    const last = way.at(-1)!;
    const again = this.#into.get(last);
    return again === undefined ? last : way.slice(way.indexOf(again)).sort()[0]!;
  }

  /** The record itself, what it is joined to, what that is joined to, and so on, each once. */
  wayOf(customer: string): readonly string[] {
    const way = [customer];
    for (let next = this.#into.get(customer); next !== undefined; next = this.#into.get(next)) {
      if (way.includes(next)) break;
      way.push(next);
    }
    return way;
  }

  /** All records of whoever this one is of, the one they go by first. */
  records(customer: string): readonly string[] {
    const all = [this.of(customer)];
    for (const each of all)
      for (const from of this.#from.get(each) ?? []) if (!all.includes(from)) all.push(from);
    return all;
  }

  isSame(a: string | null, b: string | null): boolean {
    return a === b || (a !== null && b !== null && this.of(a) === this.of(b));
  }

  /** The account of the record that a person goes by; one that is no customer's is itself. */
  account<A extends string>(account: A): A {
    const [, head = '', customer = ''] = OWN.exec(account) ?? [];
    return head === '' ? account : (`${head}:${this.of(customer)}` as A);
  }

  /** All accounts that are one with it. */
  accounts<A extends string>(account: A): readonly A[] {
    const [, head = '', customer = ''] = OWN.exec(account) ?? [];
    return head === '' ? [account] : this.records(customer).map((id) => `${head}:${id}` as A);
  }
}

/** Where nobody was joined. */
export const NOBODY_JOINED = new Joined([]);

/** Whose account it is; null for one that is no customer's. */
export const customerIn = (account: string): string | null => OWN.exec(account)?.[2] ?? null;

/** All accounts that are one with these, each with the one that was asked for. */
export const asAsked = (accounts: readonly string[], joined: Joined): ReadonlyMap<string, string> =>
  new Map(
    accounts.flatMap((asked) => joined.accounts(asked).map((each) => [each, asked] as const)),
  );

/** Reads rows of customers by their ids, and those that are joined to any of these. */
export interface ReadJoined<R extends JoinedRow> {
  readonly byId: (ids: readonly string[]) => Promise<readonly R[]>;
  readonly into: (ids: readonly string[]) => Promise<readonly R[]>;
}

/** Rows of these customers, and of all records that are of the same people. */
export async function recordsAbout<R extends JoinedRow>(
  customers: Iterable<string>,
  { byId, into }: ReadJoined<R>,
): Promise<readonly R[]> {
  const found = new Map<string, R>();
  const asked = new Set<string>();
  let wanted = [...new Set(customers)];
  while (wanted.length > 0) {
    for (const id of wanted) asked.add(id);
    const own = wanted.filter((id) => !found.has(id));
    const rows = await Promise.all([own.length === 0 ? [] : byId(own), into(wanted)]);
    for (const row of rows.flat()) found.set(row.id, row);
    const near = [...found.values()].flatMap(({ id, joinedInto }) => [id, joinedInto ?? id]);
    wanted = [...new Set(near)].filter((id) => !asked.has(id));
  }
  return [...found.values()];
}

/** Whom records are of, by the ids of the records: the row that they go by. */
export function byRecord<R extends JoinedRow>(customers: readonly R[]): ReadonlyMap<string, R> {
  const joined = new Joined(customers);
  const rows = new Map(customers.map((row) => [row.id, row]));
  return new Map(customers.map((row) => [row.id, rows.get(joined.of(row.id)) ?? row]));
}

/** What customers are called, by the ids of all their records. */
export const namesOf = (
  customers: readonly (JoinedRow & Pick<Row<'customers'>, 'name'>)[],
): ReadonlyMap<string, string> =>
  new Map([...byRecord(customers)].map(([id, { name }]) => [id, name]));

/** Those that people go by: records that were joined to another are not among them. */
export function people<R extends JoinedRow>(customers: readonly R[]): readonly R[] {
  const joined = new Joined(customers);
  return customers.filter(({ id }) => joined.of(id) === id);
}

type Agreed = Pick<Row<'customers'>, 'mayKeep' | 'consentStamp'>;

/** Whether somebody may be kept: as they said last, on whichever of their records. */
export const mayKeep = (records: readonly Agreed[]): boolean =>
  records.toSorted((a, b) => (a.consentStamp < b.consentStamp ? 1 : -1))[0]?.mayKeep ?? false;

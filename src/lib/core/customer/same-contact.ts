/** Which customers somebody may be, by what they gave of themselves. */
import type { Row } from '../books/tables';
import { Joined, type JoinedRow } from './joined';
import { phoneNumber } from './phone-number';

export interface Contact {
  readonly name: string;
  readonly email: string;
  readonly phone: string;
}

type Customer = Pick<Row<'customers'>, 'id' | 'name' | 'email' | 'phone' | 'isActive'> & JoinedRow;

/**
 * Looks customers up by mail, then by telephone, then, where somebody gave neither, by the whole name; more than one
 * where that is not plain: whom they go by, whichever of their records says so. Made ready once for all who are looked up.
 * @param locale Of the business: whose numbers are the same is told by its country.
 */
export function byContact<C extends Customer>(
  customers: readonly C[],
  locale: string,
): (contact: Contact) => readonly C[] {
  const joined = new Joined(customers);
  const byId = new Map(customers.map((each) => [each.id, each]));
  const there = customers.filter(({ isErased, isActive }) => !isErased && isActive);
  const by = (key: (of: Contact) => string): ReadonlyMap<string, readonly C[]> => {
    const found = new Map<string, C[]>();
    for (const each of there) {
      const person = byId.get(joined.of(each.id)) ?? each;
      const before = found.get(key(each)) ?? [];
      if (!before.includes(person)) found.set(key(each), [...before, person]);
    }
    return found;
  };
  const keys = [mailOf, (of: Contact) => phoneOf(of, locale)];
  const known = keys.map((key) => ({ key, found: by(key) }));
  const names = by(nameOf);
  return (contact) => {
    const given = known.filter(({ key }) => key(contact) !== '');
    for (const { key, found } of given) {
      const same = found.get(key(contact));
      if (same !== undefined) return same;
    }
    return given.length === 0 ? (names.get(nameOf(contact)) ?? []) : [];
  };
}

export interface MaybeSame<C> {
  readonly customer: C;
  /** What is the same. */
  readonly by: 'mail' | 'telephone';
}

/** Who may be the same person, by the same mail or telephone, on a record of their own. @param locale Of the business. */
export function maybeSame<C extends Customer>(
  customer: Contact & Pick<C, 'id'>,
  customers: readonly C[],
  locale: string,
): readonly MaybeSame<C>[] {
  const [mail, phone] = [mailOf(customer), phoneOf(customer, locale)];
  const joined = new Joined(customers);
  const sameBy = (each: C): MaybeSame<C>['by'] | null => {
    if (mail !== '' && mailOf(each) === mail) return 'mail';
    return phone !== '' && phoneOf(each, locale) === phone ? 'telephone' : null;
  };
  return customers.flatMap((each) => {
    if (each.isErased || !each.isActive || joined.of(each.id) !== each.id) return [];
    const by = joined.isSame(each.id, customer.id) ? null : sameBy(each);
    return by === null ? [] : [{ customer: each, by }];
  });
}

const mailOf = ({ email }: Contact): string => email.trim().toLowerCase();
/** What is no number of its country is at least its figures. */
const phoneOf = ({ phone }: Contact, locale: string): string =>
  phoneNumber(phone, locale) ?? phone.replace(/\D/g, '');
const nameOf = ({ name }: Contact): string => name.trim().toLowerCase();

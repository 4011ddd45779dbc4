/** Which customers somebody may be, by what they gave of themselves. */
import type { Row } from '../books/tables';
import { phoneNumber } from './phone-number';

export interface Contact {
  readonly name: string;
  readonly email: string;
  readonly phone: string;
}

type Customer = Pick<Row<'customers'>, 'id' | 'name' | 'email' | 'phone' | 'isErased' | 'isActive'>;

/**
 * Looks customers up by mail, then by telephone, then, where somebody gave neither, by the whole name; more than one
 * where that is not plain. Made ready once for all who are looked up.
 * @param locale Of the business: whose numbers are the same is told by its country.
 */
export function byContact<C extends Customer>(
  customers: readonly C[],
  locale: string,
): (contact: Contact) => readonly C[] {
  const there = customers.filter(({ isErased, isActive }) => !isErased && isActive);
  const by = (key: (of: Contact) => string): ReadonlyMap<string, readonly C[]> => {
    const found = new Map<string, C[]>();
    for (const each of there) found.set(key(each), [...(found.get(key(each)) ?? []), each]);
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

const mailOf = ({ email }: Contact): string => email.trim().toLowerCase();
/** What is no number of its country is at least its figures. */
const phoneOf = ({ phone }: Contact, locale: string): string =>
  phoneNumber(phone, locale) ?? phone.replace(/\D/g, '');
const nameOf = ({ name }: Contact): string => name.trim().toLowerCase();

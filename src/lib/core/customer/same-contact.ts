/** Which customers somebody may be, by what they gave of themselves. */
import type { Row } from '../books/tables';

export interface Contact {
  readonly name: string;
  readonly email: string;
  readonly phone: string;
}

type Customer = Pick<Row<'customers'>, 'id' | 'name' | 'email' | 'phone' | 'isErased' | 'isActive'>;

const digits = (phone: string): string => phone.replace(/\D/g, '');

/** By mail, then by telephone, then, where they gave neither, by the whole name; more than one where that is not plain. */
export function findByContact<C extends Customer>(
  { name, email, phone }: Contact,
  customers: readonly C[],
): readonly C[] {
  const there = customers.filter(({ isErased, isActive }) => !isErased && isActive);
  const mail = email.trim().toLowerCase();
  const byMail = mail === '' ? [] : there.filter((each) => each.email.toLowerCase() === mail);
  if (byMail.length > 0) return byMail;
  const number = digits(phone);
  const byPhone = number === '' ? [] : there.filter((each) => digits(each.phone) === number);
  if (byPhone.length > 0) return byPhone;
  const called = name.trim().toLowerCase();
  return mail !== '' || number !== ''
    ? []
    : there.filter((each) => each.name.toLowerCase() === called);
}

import type { Row } from '../books/tables';
import { Joined } from './joined';
import { folded, hasWords, wordsIn } from '../entry-line/words';

/**
 * Customers by any part of name, company, e-mail, phone or the code of their card, every word of what is typed; those whose
 * name begins with it first, then by name. Whoever has several records is found by what stands on any of them, once. The ones
 * that were erased or put away are not found.
 */
export function findCustomers(
  typed: string,
  customers: readonly Row<'customers'>[],
  joined: Joined = new Joined(customers),
): readonly Row<'customers'>[] {
  const words = wordsIn(typed);
  const figures = typed.replace(/\D/g, '');
  const fits = customers.filter((each) => !each.isErased && isFound(each, words, figures));
  const found = (joined.isEmpty ? fits : peopleOf(fits, customers, joined)).filter(
    ({ isActive, isErased, name }) => isActive && !isErased && name !== '',
  );
  const rank = ({ name }: Row<'customers'>): number =>
    folded(name).startsWith(words[0] ?? '') ? 0 : 1;
  return found
    .map((customer, at) => ({ customer, at }))
    .sort(
      (a, b) =>
        rank(a.customer) - rank(b.customer) ||
        compare(a.customer.name, b.customer.name) ||
        a.at - b.at,
    )
    .map(({ customer }) => customer);
}

/** Whom these records are of, each once. */
function peopleOf(
  records: readonly Row<'customers'>[],
  customers: readonly Row<'customers'>[],
  joined: Joined,
): readonly Row<'customers'>[] {
  const wanted = new Set(records.map(({ id }) => joined.of(id)));
  return customers.filter(({ id }) => wanted.has(id));
}

function isFound(
  { name, company, email, phone, code }: Row<'customers'>,
  words: readonly string[],
  figures: string,
): boolean {
  const isPhone = figures.length >= 3 && phone.replace(/\D/g, '').includes(figures);
  return isPhone || hasWords([name, company, email, code], words);
}

const compare = (a: string, b: string): number => {
  const [x, y] = [folded(a), folded(b)];
  return x === y ? 0 : x < y ? -1 : 1;
};

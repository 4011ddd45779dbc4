import { ROLES } from './rights';

const rank = (role: string): number => (ROLES as readonly string[]).indexOf(role);

/** Owners first, then leads, then helpers; by name among themselves, then by id. */
export function inOrder<
  P extends { readonly id: string; readonly name: string; readonly role: string },
>(people: readonly P[]): P[] {
  const key = ({ name, id }: P): string => `${name.toLowerCase()} ${id}`;
  return [...people].sort(
    (a, b) => rank(a.role) - rank(b.role) || (key(a) < key(b) ? -1 : key(a) > key(b) ? 1 : 0),
  );
}

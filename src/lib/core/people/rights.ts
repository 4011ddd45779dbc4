/** What somebody may do, beyond what everybody may. Set by the owner, person by person. */

export const ROLES = ['owner', 'lead', 'helper'] as const;
export type Role = (typeof ROLES)[number];

export const RIGHTS = [
  'price.change',
  'discount.over',
  'refund',
  'refund.unlinked',
  'sale.void',
  'cash.out',
  'cash.expected',
  'card.carry',
  'set-up',
] as const;
export type Right = (typeof RIGHTS)[number];

/** What is known of a person when asking whether they may. */
export interface Person {
  readonly id: string;
  readonly role: string;
  readonly isActive: boolean;
  readonly rights: readonly string[];
}

/** What a role begins with; the owner changes it for each person. An owner has all, always. */
export const RIGHTS_TO_BEGIN_WITH: Readonly<Record<Role, readonly Right[]>> = {
  owner: RIGHTS,
  lead: ['price.change', 'discount.over', 'refund', 'sale.void', 'cash.out', 'cash.expected'],
  helper: [],
};

/** For shapes from before there were rights. Anything that is not a role begins with none. */
export const rightsToBeginWith = (role: unknown): readonly Right[] =>
  RIGHTS_TO_BEGIN_WITH[ROLES.find((each) => each === role) ?? 'helper'];

/** Whether the person has the right themselves. Nobody who has left may do anything. */
export function may(person: Person | undefined, right: Right): boolean {
  if (person?.isActive !== true) return false;
  return person.role === 'owner' || person.rights.includes(right);
}

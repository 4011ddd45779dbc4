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
  'owe.over',
  'voucher.set',
  'invoice',
  'stock.move',
  'order.approve',
  'count.accept',
  'event.plan',
  'event.settle',
  'set-up',
] as const;
export type Right = (typeof RIGHTS)[number];

/** What a helper has to begin with: no figure or price hangs on it, so that a short PIN will do for it. */
const EVERYDAY: readonly string[] = ['stock.move'];
export const isTrusted = ({ role, rights }: Pick<Person, 'role' | 'rights'>): boolean =>
  role === 'owner' || rights.some((right) => !EVERYDAY.includes(right));

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
  lead: [
    'price.change',
    'discount.over',
    'refund',
    'sale.void',
    'cash.out',
    'cash.expected',
    'owe.over',
    'voucher.set',
    'invoice',
    'stock.move',
    'order.approve',
    'count.accept',
    'event.plan',
  ],
  helper: ['stock.move'],
};

/** For shapes from before there were rights. Anything that is not a role begins with none. */
export const rightsToBeginWith = (role: unknown): readonly Right[] =>
  RIGHTS_TO_BEGIN_WITH[ROLES.find((each) => each === role) ?? 'helper'];

/**
 * Before these were rights, everybody moved stock, and whoever set the business up did all of it; what they could
 * do they can.
 */
export function withLaterRights(rights: readonly string[]): readonly string[] {
  const more: readonly Right[] = rights.includes('set-up')
    ? ['stock.move', 'order.approve', 'count.accept', 'event.plan']
    : ['stock.move'];
  return [...rights, ...more.filter((each) => !rights.includes(each))];
}

/** Before settling was a right of its own, whoever set the business up said that an event was settled. */
export const withSettling = (rights: readonly string[]): readonly string[] =>
  rights.includes('set-up') && !rights.includes('event.settle')
    ? [...rights, 'event.settle']
    : rights;

/** Whether the person has the right themselves. Nobody who has left may do anything. */
export function may(person: Person | undefined, right: Right): boolean {
  if (person?.isActive !== true) return false;
  return person.role === 'owner' || person.rights.includes(right);
}

/** A made-up colleague, with a PIN that the start command prints. */
import type { BodyOf } from '../src/lib/core/daybook/kinds';
import { RIGHTS_TO_BEGIN_WITH, type Right, type Role } from '../src/lib/core/people/rights';
import { hashPin } from '../src/lib/device/pin-hash';
import { recordIdOf } from './ids';

export interface DemoPerson {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  readonly pin: string;
  readonly rights: readonly Right[];
}

export const person = (
  business: string,
  name: string,
  role: Role,
  pin: string,
  more: readonly Right[] = [],
): DemoPerson => ({
  id: recordIdOf(business, 'staff', name),
  name,
  role,
  pin,
  rights: [...RIGHTS_TO_BEGIN_WITH[role], ...more],
});

export async function bodyOf(
  business: string,
  { id, name, role, pin, rights }: DemoPerson,
): Promise<BodyOf<'staff.set'>> {
  const hash = await hashPin(pin, business, id);
  return { id, name, role, isActive: true, rights: [...rights], discountUpTo: '5', pin: hash };
}

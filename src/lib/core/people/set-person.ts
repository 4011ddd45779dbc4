/** Setting up a person: a command, with what can be wrong about it. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { readPercent } from '../money/percent';
import { draft } from '../daybook/kinds';
import type { PinHash, PinRefusal } from './pin';
import { setPin } from './set-pin';
import { RIGHTS, type Right, type Role } from './rights';

export interface SetPerson {
  readonly newId: () => string;
  /** Null for somebody new. */
  readonly id: string | null;
  readonly name: string;
  readonly role: Role;
  readonly isActive: boolean;
  readonly rights: readonly Right[];
  /** Percent, as typed. */
  readonly discountUpTo: string;
  /** A new PIN, that nobody else here has; null where it stays as it is. */
  readonly pin: PinHash | null;
  readonly people: readonly Row<'staff'>[];
}

/** Why somebody cannot be set up so. */
export type PersonRefusal =
  | PinRefusal
  | { readonly code: 'person/no-name' }
  | { readonly code: 'person/name-taken'; readonly name: string }
  | { readonly code: 'person/discount-wrong'; readonly typed: string }
  /** Nobody would be left who could set anything up. */
  | { readonly code: 'person/last-owner' };

export type PersonOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: PersonRefusal };

/** Sets a person up, or as they now are. Names are unlike those of all who are here. */
export function setPerson(command: SetPerson): PersonOutcome {
  const { newId, role, isActive, pin, people } = command;
  const id = command.id ?? newId();
  const name = command.name.trim();
  const others = people.filter((each) => each.id !== id && each.isActive);
  if (name === '') return refuse({ code: 'person/no-name' });
  if (others.some((each) => each.name.toLowerCase() === name.toLowerCase())) {
    return refuse({ code: 'person/name-taken', name });
  }
  const typed = command.discountUpTo.trim();
  const discountUpTo = typed === '' ? null : readPercent(typed);
  if (discountUpTo === null) {
    return refuse({ code: 'person/discount-wrong', typed: command.discountUpTo });
  }
  const hasOwner = others.some((each) => each.role === 'owner') || (isActive && role === 'owner');
  if (!hasOwner) return refuse({ code: 'person/last-owner' });
  const rights = RIGHTS.filter((right) => role === 'owner' || command.rights.includes(right));
  const body = { id, name: name.slice(0, 80), role, isActive, rights, discountUpTo };
  const drafts = [draft('staff.set', newId(), null, body)];
  if (pin !== null) drafts.push(...setPin(newId, id, pin).drafts);
  return { ok: true, drafts };
}

const refuse = (refusal: PersonRefusal): PersonOutcome => ({ ok: false, refusal });

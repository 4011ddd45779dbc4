/** Cash in between, in words. */
import {
  cashAct,
  drawerAt,
  spentAt,
  type CashAct,
  type FromTo,
} from '../../core/drawer/cash-places';
import type { CashRefusal } from '../../core/drawer/move-cash';
import type { Fault } from '../forms/faults.svelte';

export const cashActWords: Readonly<Record<CashAct, string>> = {
  'paid-out': 'Paid out',
  'paid-in': 'Paid in',
  'to-safe': 'To the safe',
  float: 'More float from the safe',
  changed: 'Notes changed',
  moved: 'To another drawer',
  bagged: 'Into a bag for the bank',
  unbagged: 'A bag opened again',
  'to-owner': 'Taken by the owner',
};

export const spentWords: Readonly<Record<string, string>> = {
  pitch: 'the pitch',
  travel: 'travel',
  power: 'power',
  wages: 'wages',
  goods: 'goods to sell',
  supplies: 'bags, wrap, tape',
  food: 'food and drink',
  other: 'something else',
};

interface Moved extends FromTo {
  readonly what: string;
  readonly bag: string;
}

/** @param drawerName What a drawer is called. @example 'Paid out of Drawer 1 for travel: diesel' */
export function cashMoveWords(move: Moved, drawerName: (id: string) => string): string {
  const place = (at: string): string => {
    const drawer = drawerAt(at);
    return drawer === null ? 'the safe' : drawerName(drawer);
  };
  const what = move.what === '' ? '' : `: ${move.what}`;
  const spent = spentAt(move.to) ?? spentAt(move.from);
  switch (cashAct(move)) {
    case 'paid-out':
      return `Paid out of ${place(move.from)} for ${spentWords[spent ?? ''] ?? spent ?? ''}${what}`;
    case 'paid-in':
      return `Paid into ${place(move.to)}${what}`;
    case 'to-safe':
      return `From ${place(move.from)} to the safe${what}`;
    case 'float':
      return `More float for ${place(move.to)}${what}`;
    case 'changed':
      return `Notes of ${place(move.from)} changed${what}`;
    case 'moved':
      return `From ${place(move.from)} to ${place(move.to)}${what}`;
    case 'bagged':
      return `From ${place(move.from)} into bag ${move.bag}${what}`;
    case 'unbagged':
      return `A bag opened again, into ${place(move.to)}${what}`;
    case 'to-owner':
      return `Taken out of ${place(move.from)} by the owner${what}`;
  }
}

export function cashFault(refusal: CashRefusal): Fault {
  const { field } = refusal;
  switch (refusal.code) {
    case 'cash/amount-wrong':
      return {
        field,
        says:
          refusal.typed.trim() === ''
            ? 'Type how much, such as 12.50.'
            : `“${refusal.typed}” is no amount that can be moved; type one such as 12.50.`,
      };
    case 'cash/no-purpose':
      return { field, says: 'Say what for; whoever counts tonight will want to know.' };
    case 'cash/no-bag':
      return { field, says: 'Type the number that stands on the bag.' };
    case 'cash/bag-taken':
      return {
        field,
        says: `There is a bag ${refusal.number} already that is not at the bank yet.`,
      };
    case 'cash/bag-gone':
      return { field, says: 'That bag has been opened already.' };
    case 'cash/same-place':
      return { field, says: 'It is there already; choose another place.' };
    case 'cash/counted-already':
      return {
        field,
        says: `${refusal.name} has been counted; its final read stays as it is. Use another drawer, or the safe.`,
      };
  }
}

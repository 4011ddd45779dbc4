/** Opening and counting a drawer. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { readAmount } from '../money/amount-text';
import { worthOf, type Pieces } from '../money/worth';
import { expectedCash } from './expected-cash';

/** Why a drawer cannot be opened or counted as asked. Ordinary outcomes: returned, never thrown. */
export type DrawerRefusal =
  | { readonly code: 'drawer/no-name' }
  | { readonly code: 'drawer/open-already'; readonly name: string }
  | { readonly code: 'drawer/bad-count'; readonly value: number; readonly count: number }
  | { readonly code: 'drawer/counted-already'; readonly by: string }
  | { readonly code: 'drawer/reason-wanted'; readonly difference: number }
  /** It is off by more than the vendor lets pass at once. */
  | { readonly code: 'drawer/count-again'; readonly counted: number }
  | { readonly code: 'drawer/leaves-too-much'; readonly counted: number }
  | {
      readonly code: 'drawer/amount-wrong';
      readonly field: 'stays' | 'bag';
      readonly typed: string;
    }
  | { readonly code: 'drawer/no-bag-number' };

export type DrawerOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: DrawerRefusal };

export interface OpenDrawer {
  readonly id: string;
  readonly event: string;
  readonly name: string;
  readonly counts: readonly Pieces[];
  /** Drawers of the event that have not been counted. */
  readonly open: readonly Pick<Row<'drawers'>, 'name'>[];
}

/** What a drawer is called unless somebody says otherwise: the first number that is free. */
export function nextDrawerName(drawers: readonly Pick<Row<'drawers'>, 'name'>[]): string {
  const taken = new Set(drawers.map(({ name }) => name.toLowerCase()));
  let number = 1;
  while (taken.has(`drawer ${String(number)}`)) number += 1;
  return `Drawer ${String(number)}`;
}

/** Opens a drawer with a counted float; of one name there is one at a time, or the float would be there twice. */
export function openDrawer({ id, event, name, counts, open }: OpenDrawer): DrawerOutcome {
  if (name.trim() === '') return refuse({ code: 'drawer/no-name' });
  const called = name.trim().toLowerCase();
  if (open.some((each) => each.name.toLowerCase() === called))
    return refuse({ code: 'drawer/open-already', name: name.trim() });
  const bad = badCount(counts);
  if (bad !== null) return refuse(bad);
  const kept = counted(counts);
  const body = { name: name.trim(), float: worthOf(kept), counts: kept };
  return { ok: true, drafts: [draft('drawer.opened', id, event, body)] };
}

export interface CountDrawer {
  readonly newId: () => string;
  readonly drawer: Row<'drawers'>;
  readonly sums: Row<'drawerSums'> | undefined;
  readonly counts: readonly Pieces[];
  readonly reason: string;
  /** What becomes of the cash; all of it goes to the safe unless it is said. */
  readonly leaves?: Leaves;
  /** A difference of more than this is counted once more, minor units; null: never. */
  readonly recountAbove?: number | null;
  /** What was counted first, where this is the second count; minor units. */
  readonly first?: number | null;
  /** The device's next number for a final read. */
  readonly number: number;
  /** Final reads that there are of this drawer. */
  readonly reads: readonly Row<'drawerReads'>[];
  /** Whether other drawers of the event are still open. */
  readonly othersAreOpen: boolean;
}

/** What becomes of the cash that was counted; the rest goes to the safe. Minor units. */
export interface Leaves {
  /** For the next float. */
  readonly stays: number;
  readonly bag: { readonly number: string; readonly amount: number } | null;
}
const ALL_TO_THE_SAFE: Leaves = { stays: 0, bag: null };

export interface TypedLeaves {
  readonly stays: string;
  readonly bag: string;
  readonly bagNumber: string;
}

/** Reads what stays and what is bagged, as it was typed; nothing is none. */
export function readLeaves(
  typed: TypedLeaves,
  currency: string,
):
  | { readonly ok: true; readonly leaves: Leaves }
  | { readonly ok: false; readonly refusal: DrawerRefusal } {
  const read = { stays: 0, bag: 0 };
  for (const field of ['stays', 'bag'] as const) {
    if (typed[field].trim() === '') continue;
    const amount = readAmount(typed[field], currency);
    if (!amount.ok)
      return { ok: false, refusal: { code: 'drawer/amount-wrong', field, typed: typed[field] } };
    read[field] = amount.amount;
  }
  const number = typed.bagNumber.trim().slice(0, 40);
  if (read.bag > 0 && number === '')
    return { ok: false, refusal: { code: 'drawer/no-bag-number' } };
  const bag = read.bag === 0 ? null : { number, amount: read.bag };
  return { ok: true, leaves: { stays: read.stays, bag } };
}

/**
 * The final read of a drawer: expected, counted, difference, reason. When it is the event's last
 * open drawer, the event has been counted.
 */
export function countDrawer(command: CountDrawer): DrawerOutcome {
  const { drawer, sums, number, newId } = command;
  const [earlier] = command.reads;
  if (earlier !== undefined) return refuse({ code: 'drawer/counted-already', by: earlier.id });
  const bad = badCount(command.counts);
  if (bad !== null) return refuse(bad);
  const counts = counted(command.counts);
  const expected = expectedCash(drawer, sums);
  const found = worthOf(counts);
  const difference = found - expected;
  const { leaves = ALL_TO_THE_SAFE, recountAbove = null, first = null } = command;
  if (leaves.stays + (leaves.bag?.amount ?? 0) > found)
    return refuse({ code: 'drawer/leaves-too-much', counted: found });
  if (recountAbove !== null && first === null && Math.abs(difference) > recountAbove)
    return refuse({ code: 'drawer/count-again', counted: found });
  const reason = command.reason.trim();
  if (difference !== 0 && reason === '')
    return refuse({ code: 'drawer/reason-wanted', difference });
  const { event } = drawer;
  const figures = { drawer: drawer.id, number, counts, expected, counted: found, difference };
  const body = { ...figures, reason, ...leaves, first };
  const drafts: Draft[] = [draft('drawer.counted', newId(), event, body)];
  if (event !== null && !command.othersAreOpen) {
    drafts.push(draft('event.stage', newId(), event, { event, stage: 'counted' }));
  }
  return { ok: true, drafts };
}

const refuse = (refusal: DrawerRefusal): DrawerOutcome => ({ ok: false, refusal });

const counted = (counts: readonly Pieces[]): Pieces[] => counts.filter(({ count }) => count > 0);

function badCount(counts: readonly Pieces[]): DrawerRefusal | null {
  const bad = counts.find(
    ({ count }) => !Number.isSafeInteger(count) || count < 0 || count > 99_999,
  );
  return bad === undefined ? null : { code: 'drawer/bad-count', ...bad };
}

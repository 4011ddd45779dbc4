/** What state a list of goods is in, what is still to do, and what it keeps back or has on order. */
import type { Row } from '../books/tables';
import { SUPPLIERS } from '../books/names';
import type { Right } from '../people/rights';

type List = Row<'lists'>;

/** *Under way*: something has been packed or sent. *In part*: some of it has arrived. */
export type ListState = 'draft' | 'approved' | 'under way' | 'in part' | 'done' | 'off';

/** One line with what was done about it. Thousandths. */
export interface LineNow {
  readonly item: string;
  readonly wanted: number;
  /** Thousandths of a minor unit per unit of measure, or null. */
  readonly price: number | null;
  readonly note: string;
  readonly packed: number;
  readonly sent: number;
  readonly received: number;
}

/** Orders cost money; everything else only moves what there is. */
export const listRight = ({ use }: Pick<List, 'use'>): Right =>
  use === 'order' ? 'order.approve' : 'stock.move';

/** Whether goods are first sent and then received, by different people, or move at once. */
export const isInTwoSteps = ({ use, from, supplier }: Pick<List, 'use' | 'from' | 'supplier'>) =>
  supplier === null && (use === 'transfer' || (use === 'order' && from !== SUPPLIERS));

/** Lines of a list, and what was done for goods that are on none of them. */
export function linesNow(
  lines: readonly Row<'listLines'>[],
  sums: readonly Row<'listSums'>[],
): readonly LineNow[] {
  const done = new Map(sums.map((row) => [row.item, row]));
  const found = lines
    .filter(({ setStamp }) => setStamp !== '')
    .map(({ item, wanted, price, note }) => ({
      ...{ item, wanted, price, note },
      ...figuresOf(done.get(item)),
    }));
  const listed = new Set(found.map(({ item }) => item));
  const more = sums
    .filter(({ item }) => !listed.has(item))
    .map((row) => ({ item: row.item, wanted: 0, price: null, note: '', ...figuresOf(row) }));
  return [...found, ...more].filter(
    ({ wanted, packed, sent, received }) =>
      wanted !== 0 || packed !== 0 || sent !== 0 || received !== 0,
  );
}

const figuresOf = (row: Row<'listSums'> | undefined) => ({
  packed: row?.packed ?? 0,
  sent: row?.sent ?? 0,
  received: row?.received ?? 0,
});

export function stateOf(list: Pick<List, 'stage'>, lines: readonly LineNow[]): ListState {
  const { stage } = list;
  if (stage === 'off' || stage === 'done') return stage;
  if (stage !== 'approved') return 'draft';
  const hasSome = lines.some(({ received }) => received !== 0);
  if (hasSome && lines.every(({ wanted, received }) => received >= wanted)) return 'done';
  if (hasSome) return 'in part';
  return lines.some(({ packed, sent }) => packed !== 0 || sent !== 0) ? 'under way' : 'approved';
}

export const isOpen = (state: ListState): boolean => state !== 'done' && state !== 'off';

/** What was packed so far, also what has left by now. Thousandths. */
export const packedOf = ({ packed, sent }: LineNow): number => Math.max(packed, sent);
/** What is still to be packed for it, and what of it is packed and has not left yet. Thousandths. */
export const toPack = (line: LineNow): number => Math.max(0, line.wanted - packedOf(line));
export const toSend = ({ packed, sent }: LineNow): number => Math.max(0, packed - sent);
/** Still wanted, and not there to be packed. @param onHand Where it is packed; thousandths. */
export const shortOf = (line: LineNow, onHand: number): number =>
  Math.max(0, toPack(line) - Math.max(0, onHand - toSend(line)));
/** What has left and not arrived. */
export const underWay = ({ sent, received }: LineNow): number => sent - received;

/** What lists keep back at a place, and what is to come there. Thousandths. */
export interface Kept {
  readonly reserved: number;
  readonly onOrder: number;
}

/** A list with its lines. */
export interface WholeList {
  readonly list: List;
  readonly lines: readonly LineNow[];
}

/**
 * Reserved and on order, by place and item (`keptKey`): worked out of the lists that make them each time, so that it
 * cannot drift from them. A draft keeps nothing back.
 */
export function keptByLists(lists: readonly WholeList[]): ReadonlyMap<string, Kept> {
  const kept = new Map<string, { reserved: number; onOrder: number }>();
  const at = (place: string, item: string): { reserved: number; onOrder: number } => {
    const key = keptKey(place, item);
    const found = kept.get(key) ?? { reserved: 0, onOrder: 0 };
    kept.set(key, found);
    return found;
  };
  for (const { list, lines } of lists) {
    const state = stateOf(list, lines);
    if (state === 'draft' || !isOpen(state)) continue;
    for (const line of lines) {
      const { item, wanted, packed, sent, received } = line;
      // What is packed is kept back as well, also beyond what was wanted.
      const leaves = Math.max(wanted, packed) - sent;
      if (list.from !== SUPPLIERS && list.use !== 'unload' && leaves > 0)
        at(list.from, item).reserved += leaves;
      const comes = Math.max(wanted, sent) - received;
      if (list.to !== SUPPLIERS && list.use !== 'load' && list.use !== 'unload' && comes > 0)
        at(list.to, item).onOrder += comes;
    }
  }
  return kept;
}
export const keptKey = (place: string, item: string): string => `${place} ${item}`;

/** What is on hand and not kept back. Thousandths; below nothing where more is promised than there is. */
export const freeOf = (onHand: number, kept: Kept | undefined): number =>
  onHand - (kept?.reserved ?? 0);

/** The letter of its number, by what it is for. */
const LETTERS = { load: 'L', unload: 'U', transfer: 'T', order: 'O', back: 'R' } as const;
export const listNumber = ({
  use,
  deviceNumber,
  number,
}: Pick<List, 'use' | 'deviceNumber' | 'number'>): string =>
  `${LETTERS[use]}${String(deviceNumber)}-${String(number)}`;

/** The next number that a device gives a list of a use. */
export const nextNumber = (
  deviceNumber: number,
  lists: readonly { readonly deviceNumber: number; readonly number: number }[],
): number =>
  Math.max(0, ...lists.filter((each) => each.deviceNumber === deviceNumber).map((n) => n.number)) +
  1;

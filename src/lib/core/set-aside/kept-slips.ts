/** Slips that are kept for later: set aside in one go, taken up again, never lost. */
import type { KeptLine, Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { hasWords, wordsIn } from '../entry-line/words';
import { asTaken, joinLines, sorted } from './join-lines';
import { slipEnded } from './slip-ended';
import {
  emptySlip,
  type OpenLine,
  type OpenSlip,
  type SlipBack,
  type SlipCustomer,
} from '../slip/open-slip';

/** A kept slip with its lines, as this device knows it. */
export interface KeptSlip {
  readonly row: Row<'slips'>;
  readonly lines: readonly Row<'slipLines'>[];
}

/** What is kept and has not gone, newest first; lines in the order in which they were put on. */
export function keptSlips(
  slips: readonly Row<'slips'>[],
  lines: readonly Row<'slipLines'>[],
): readonly KeptSlip[] {
  const bySlip = new Map<string, Row<'slipLines'>[]>();
  for (const line of lines) {
    if (line.line === null) continue;
    const list = bySlip.get(line.slip);
    if (list === undefined) bySlip.set(line.slip, [line]);
    else list.push(line);
  }
  return slips
    .filter(({ state, setStamp }) => setStamp !== '' && (state === 'open' || state === 'taken'))
    .sort((a, b) => (a.stateStamp < b.stateStamp ? 1 : -1))
    .map((row) => ({
      row,
      lines: (bySlip.get(row.id) ?? []).sort((a, b) => (a.id < b.id ? -1 : 1)),
    }));
}

/** Whether a kept slip fits what was typed: its name, the customer’s, or what is on it. */
export function fits(kept: KeptSlip, typed: string, customer: string): boolean {
  const goods = kept.lines.map(({ line }) => `${line?.name ?? ''} ${line?.detail ?? ''}`);
  return hasWords([kept.row.name, customer, ...goods], wordsIn(typed));
}

/** The slip as it goes on, on the device that takes it up. */
export function openFrom({ row, lines }: KeptSlip, customer: SlipCustomer | undefined): OpenSlip {
  const sort = row.sort === 'tab' ? 'tab' : 'aside';
  return {
    ...emptySlip(row.id),
    lines: lines.flatMap(({ id, person, line }): OpenLine[] =>
      line === null ? [] : [{ ...line, key: id, ...(person === '' ? {} : { person }) }],
    ),
    kept: { sort, name: row.name },
    asTakenUp: asTaken(lines),
    ...(customer === undefined ? {} : { customer }),
    ...(row.group === null ? {} : { group: row.group }),
    ...(row.discount === null ? {} : { discount: row.discount }),
    ...(row.service === null ? {} : { service: row.service }),
    ...(row.note === '' ? {} : { note: row.note }),
    ...(row.back.length === 0 ? {} : { back: row.back }),
    ...(row.handsOver === null ? {} : { handsOver: row.handsOver }),
  };
}

export interface Keep {
  readonly newId: () => string;
  readonly event: string | null;
  readonly slip: OpenSlip;
  readonly sort: 'aside' | 'tab';
  readonly name: string;
  /** All lines of it that are on the list now, also those that others put on while it was in hand. */
  readonly known: readonly Row<'slipLines'>[];
}

export type KeepRefusal = {
  readonly code: 'aside/nothing-on-it' | 'aside/part-paid' | 'tab/no-name';
};

export type KeepOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: KeepRefusal };

/**
 * Keeps a slip for all devices to see, or puts a changed one back: only lines that are new, changed
 * or taken off are written. A tab may be opened with nothing on it; it needs a name.
 */
export function keepSlip({ newId, event, slip: inHand, sort, name, known }: Keep): KeepOutcome {
  const { slip } = joinLines(inHand, known);
  const called = name.trim().slice(0, 80);
  if ((slip.paid ?? []).length > 0) return refuse('aside/part-paid');
  if (sort === 'tab' && called === '') return refuse('tab/no-name');
  if (sort === 'aside' && slip.lines.length === 0 && slip.back === undefined)
    return refuse('aside/nothing-on-it');
  const before = new Map(known.map((row) => [row.id, row]));
  const now = new Set(slip.lines.map(({ key }) => key));
  const drafts = [
    draft('slip.set', newId(), event, {
      id: slip.id,
      sort,
      name: called,
      customer: slip.customer?.id ?? null,
      group: slip.group ?? null,
      discount: slip.discount ?? null,
      service: slip.service ?? null,
      note: slip.note ?? '',
      back: (slip.back ?? []).map((each) => ({
        ...each,
        lines: [...each.lines],
        takes: [...each.takes],
        surcharges: [...each.surcharges],
        promotions: [...((each as Partial<SlipBack>).promotions ?? [])],
      })),
      handsOver: slip.handsOver ?? null,
    }),
  ];
  for (const { key, person = '', ...line } of slip.lines) {
    const was = before.get(key);
    if (was?.person === person && was.line !== null && isAlike(was.line, line)) continue;
    drafts.push(lineDraft(newId(), event, { id: key, slip: slip.id, person, line: bare(line) }));
  }
  for (const { id, person, line } of known) {
    if (line === null || now.has(id)) continue;
    drafts.push(lineDraft(newId(), event, { id, slip: slip.id, person, line: null }));
  }
  return { ok: true, drafts };
}

/** A line goes from the slip that is open to another that is kept; taking it off is the open slip's. */
export const moveLine = (
  newId: () => string,
  event: string | null,
  { key: _key, person = '', ...line }: OpenLine,
  to: string,
): { readonly ok: true; readonly drafts: readonly Draft[] } => ({
  ok: true,
  drafts: [lineDraft(newId(), event, { id: newId(), slip: to, person, line: bare(line) })],
});

/** Says that this device goes on with it; the others see so. */
export const takeUp = (
  newId: () => string,
  event: string | null,
  slip: string,
): { readonly ok: true; readonly drafts: readonly Draft[] } => ({
  ok: true,
  drafts: [draft('slip.taken', newId(), event, { slip })],
});

/** Throws it away, for all devices. */
export const throwAway = (
  newId: () => string,
  event: string | null,
  slip: Pick<OpenSlip, 'id' | 'asTakenUp'>,
): { readonly ok: true; readonly drafts: readonly Draft[] } => ({
  ok: true,
  drafts: [slipEnded(newId, event, slip, 'emptied')],
});

const lineDraft = (
  id: string,
  event: string | null,
  body: { id: string; slip: string; person: string; line: KeptLine | null },
): Draft => draft('slip.line', id, event, body);

/** Without what is not said, so that it reads the same after it has been through JSON. */
const bare = (line: KeptLine): KeptLine => JSON.parse(JSON.stringify(line)) as KeptLine;

const isAlike = (a: KeptLine, b: KeptLine): boolean =>
  JSON.stringify(sorted(a)) === JSON.stringify(sorted(bare(b)));

const refuse = (code: KeepRefusal['code']): KeepOutcome => ({ ok: false, refusal: { code } });

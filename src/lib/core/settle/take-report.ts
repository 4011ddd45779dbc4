/** Reports of acquirers, from the acquirer itself or from a file, as entries; line by line, and what is wrong with which. */
import type { Draft } from '../daybook/chain';
import { cardsReported, REPORT_SORTS } from '../daybook/kinds/cards-reported';
import { draft, type BodyOf } from '../daybook/kinds';
import { unguarded } from '../formats/csv-cell';
import { readAmount, typedText } from '../money/amount-text';

export type CardLine = BodyOf<'cards.reported'>['lines'][number];

/** As many lines as one entry may have, within its size. */
const AT_ONCE = 150;

/** The same line of the same report is the same line, so taking it in twice is once. */
export function takeReport(
  newId: () => string,
  source: string,
  day: string,
  lines: readonly CardLine[],
): readonly Draft[] {
  const drafts: Draft[] = [];
  for (let from = 0; from < lines.length; from += AT_ONCE) {
    const body = { source, day, lines: lines.slice(from, from + AT_ONCE) };
    drafts.push(draft('cards.reported', newId(), null, body));
  }
  return drafts;
}

/** The lines of a file: each is of the day of its own time. */
export function takeFile(
  newId: () => string,
  name: string,
  lines: readonly CardLine[],
): readonly Draft[] {
  const days = [...new Set(lines.map(({ at }) => at.slice(0, 10)))].sort();
  return days.flatMap((day) =>
    takeReport(
      newId,
      name,
      day,
      lines.filter(({ at }) => at.startsWith(day)),
    ),
  );
}

/** What a file's line is, or what is wrong with it; lines count from 2, below the headings. */
export type ReportRow =
  | { readonly ok: true; readonly at: number; readonly line: CardLine }
  | { readonly ok: false; readonly at: number; readonly says: string };

export interface ReadReport {
  readonly rows: readonly ReportRow[];
  /** Lines that are there twice: taken in once. */
  readonly double: number;
}

const schema = cardsReported.body.shape.lines.element;

/**
 * Reads a report's lines by heading: `reference`, `amount`, and as far as they are there `fee`, `last4`, `at`, `sort`,
 * `id`, `scheme`, `payout`, `payout_day`. Amounts are in whole units with a decimal point, below nothing for what
 * went back.
 * @param day Of lines that say none. ISO date.
 */
export function readReport(
  lines: readonly Readonly<Record<string, string>>[],
  day: string,
  currency: string,
): ReadReport {
  const seen = new Set<string>();
  const rows: ReportRow[] = [];
  let double = 0;
  lines.forEach((cells, n) => {
    const at = n + 2;
    const read = lineFrom(cells, day, currency);
    if (typeof read === 'string') {
      rows.push({ ok: false, at, says: read });
      return;
    }
    if (seen.has(read.id)) {
      double += 1;
      return;
    }
    seen.add(read.id);
    rows.push({ ok: true, at, line: read });
  });
  return { rows, double };
}

/** @returns What is wrong, and what would be right. */
function lineFrom(
  cells: Readonly<Record<string, string>>,
  day: string,
  currency: string,
): CardLine | string {
  const cell = (name: string): string => unguarded((cells[name] ?? '').trim());
  const amountIn = (name: string): number | null => {
    const text = cell(name).replace('−', '-');
    if (text === '') return 0;
    const isBelow = text.startsWith('-');
    const read = readAmount(isBelow ? text.slice(1) : text, currency);
    return read.ok ? (isBelow ? 0 - read.amount : read.amount) : null;
  };
  const [amount, fee] = [amountIn('amount'), amountIn('fee')];
  if (cell('amount') === '' || amount === null)
    return `“${cell('amount')}” is no amount; the column “amount” needs one such as ${typedText(1250, currency)}.`;
  if (fee === null || fee < 0) return `“${cell('fee')}” is no fee; leave it empty, or write 0.35.`;
  const typed = cell('sort').toLowerCase();
  const sort =
    typed === ''
      ? amount < 0
        ? 'refund'
        : 'payment'
      : REPORT_SORTS.find((each) => each === typed);
  if (sort === undefined)
    return `“${typed}” is none of ${REPORT_SORTS.join(', ')}; the column “sort” may also be empty.`;
  const moment = momentIn(cell('at'), day);
  if (moment === null)
    return `“${cell('at')}” is no time; write one such as ${day}T12:30:00Z, or ${day} 12:30.`;
  const last4 = cell('last4').slice(-4);
  const reference = cell('reference').split(':').at(-1) ?? '';
  const id =
    cell('id') ||
    [reference, sort, moment, String(amount), last4].filter((part) => part !== '').join(' ');
  const line = {
    ...{ id: id.slice(0, 80), sort, reference, amount, fee, last4, at: moment },
    scheme: cell('scheme').slice(0, 20),
    payout: cell('payout').slice(0, 60),
    payoutDay: cell('payout_day'),
  };
  const read = schema.safeParse(line);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  return `${String(issue?.path[0] ?? 'the line')}: ${issue?.message ?? 'not as expected'}.`;
}

/** ISO 8601, or a day and a time of it; a day alone is noon of it. */
function momentIn(text: string, day: string): string | null {
  if (text === '') return `${day}T12:00:00Z`;
  const plain = /^(\d{4}-\d{2}-\d{2})(?:[ T](\d{2}:\d{2})(:\d{2})?)?(Z)?$/.exec(text);
  const said =
    plain === null ? text : `${plain[1] ?? day}T${plain[2] ?? '12:00'}${plain[3] ?? ':00'}Z`;
  const at = Date.parse(said);
  return Number.isNaN(at) ? null : new Date(at).toISOString();
}

/** A drawer's read, cash that was moved, goods that were moved: each as a paper of its own. */
import type { Row } from '$lib/core/books/tables';
import { sum } from '$lib/core/money/units';
import { readNumber } from '$lib/core/sale/sale-number';
import type { DeviceDatabase } from '$lib/device/database';
import type { OlderDocument } from '$lib/core/find/documents';
import type { DocumentPaper } from '$lib/paper/document-pdf';
import { cashMoveWords } from '$lib/ui/words/cash-words';
import { dayWords, timeWords } from '$lib/ui/words/date-words';
import { quantityWords, type MoneyWords } from '$lib/ui/words/money-words';
import { refundWords } from '$lib/ui/words/return-words';
import { reasonWords } from '$lib/ui/words/stock-words';

export type Found =
  | {
      readonly is: 'read';
      readonly row: Row<'drawerReads'>;
      readonly drawer: string;
      readonly device: number;
    }
  | {
      readonly is: 'cash';
      readonly row: Row<'cashMoves'>;
      readonly drawers: ReadonlyMap<string, string>;
    }
  | { readonly is: 'goods'; readonly row: Row<'movements'> }
  | {
      readonly is: 'refund';
      readonly row: Row<'refunds'>;
      readonly card: Row<'cardRefunds'> | null;
    };

/** Null where this device has none of that name. */
export async function ownDocument({ books }: DeviceDatabase, id: string): Promise<Found | null> {
  const read = await books.drawerReads.get(id);
  if (read !== undefined) {
    const [drawer, device] = await Promise.all([
      books.drawers.get(read.drawer),
      books.devices.get(read.device),
    ]);
    return { is: 'read', row: read, drawer: drawer?.name ?? 'Drawer', device: device?.number ?? 0 };
  }
  const cash = await books.cashMoves.get(id);
  if (cash !== undefined) {
    const drawers = await books.drawers.toArray();
    return { is: 'cash', row: cash, drawers: new Map(drawers.map((each) => [each.id, each.name])) };
  }
  const refund = await books.refunds.get(id);
  if (refund !== undefined) {
    const { card } = refund.money;
    const onto = card === undefined ? undefined : await books.cardRefunds.get(card.refund);
    return { is: 'refund', row: refund, card: onto ?? null };
  }
  const goods = await books.movements.where('id').equals(id).first();
  return goods === undefined ? null : { is: 'goods', row: goods };
}

/** The same out of what the server says. */
export const foundOf = (older: OlderDocument): Found =>
  older.is === 'cash' ? { ...older, drawers: new Map(older.drawers) } : older;

export interface PaperWords {
  readonly business: Pick<Row<'businesses'>, 'name' | 'locale' | 'timeZone'>;
  readonly money: MoneyWords;
  readonly person: (id: string | null) => string;
  readonly event: (id: string) => string;
  readonly way: (id: string) => string;
  readonly place: (id: string) => string;
  readonly item: (id: string) => { readonly name: string; readonly unit: string };
}

const PLAIN = { columns: [], rows: [], foot: '' } as const;

export function paperOf(found: Found, words: PaperWords): DocumentPaper {
  const { business, money } = words;
  const { at, by, event } = found.row;
  const facts: (readonly [string, string])[] = [
    [
      'When',
      `${dayWords(at.slice(0, 10), business.locale)}, ${timeWords(at, business.locale, business.timeZone)}`,
    ],
    ['By', words.person(by)],
    ...(event === null ? [] : [['Event', words.event(event)] as const]),
  ];
  const head = business.name;
  switch (found.is) {
    case 'read': {
      const { row, drawer, device } = found;
      return {
        ...{ head, title: 'Final read', number: readNumber(device, row.number) },
        facts: [
          ...facts,
          ['Drawer', drawer],
          ['Should be', money.text(row.expected)],
          ['Counted', money.text(row.counted)],
          ['Difference', money.text(row.difference)],
          ...(row.reason === '' ? [] : [['Why', row.reason] as const]),
          ['Stays in it', money.text(row.stays)],
          ...(row.bag === null
            ? []
            : [[`Bag ${row.bag.number}`, money.text(row.bag.amount)] as const]),
        ],
        columns: [
          { head: 'what', isFigure: false },
          { head: 'how many', isFigure: true },
          { head: money.currency, isFigure: true },
        ],
        rows: row.counts
          .filter(({ count }) => count > 0)
          .map(({ value, count }) => [
            money.denomination(value),
            String(count),
            money.figure(value * count),
          ]),
        foot: '',
      };
    }
    case 'cash': {
      const { row, drawers } = found;
      const what = cashMoveWords(row, (id) => drawers.get(id) ?? 'a drawer');
      return {
        ...{ ...PLAIN, head, title: 'Cash', number: row.bag },
        facts: [...facts, ['What', what], ['Amount', money.text(row.amount)]],
      };
    }
    case 'refund': {
      const { row, card } = found;
      const onto = row.money.card;
      return {
        ...{ head, title: 'Given back without a sale', number: row.number },
        facts: [
          ...facts,
          ...(row.saleNumber === '' ? [] : [['Of sale', row.saleNumber] as const]),
          ['Why', row.reason],
          [
            'Given back',
            `${money.text(row.money.amount)} ${onto === undefined ? `by ${words.way(row.way)}` : `onto ${onto.scheme} …${onto.last4}`}`,
          ],
          ...(card === null ? [] : [['Where it is', refundWords(card, money)] as const]),
          ...(row.money.reference === '' ? [] : [['Reference', row.money.reference] as const]),
        ],
        columns: [
          { head: 'what', isFigure: false },
          { head: 'how many', isFigure: true },
          { head: 'tax in it', isFigure: true },
          { head: money.currency, isFigure: true },
        ],
        rows: row.lines.map((line) => [
          `${line.name}${line.detail === '' ? '' : `, ${line.detail}`}${line.to === 'stock' ? '' : `, ${reasonWords(line.to)}`}`,
          quantityWords(line.quantity, line.unit),
          money.figure(sum(Object.values(line.tax))),
          money.figure(line.total),
        ]),
        foot: '',
      };
    }
    case 'goods': {
      const { row } = found;
      const { name, unit } = words.item(row.item);
      return {
        ...{ ...PLAIN, head, title: 'Goods moved', number: '' },
        facts: [
          ...facts,
          ['What', `${quantityWords(row.quantity, unit)} × ${name}`],
          ['From', words.place(row.from)],
          ['To', words.place(row.to)],
          ['Why', reasonWords(row.reason)],
          ...(row.note === '' ? [] : [['Note', row.note] as const]),
        ],
      };
    }
  }
}

/** What a maker is told of an event: what their goods brought, what is kept, what they are owed. On paper and in a letter. */
import type { Row } from '../books/tables';
import { dayWords } from '../event/day-words';
import { figureText, moneyText } from '../money/amount-text';
import { quantityWords } from '../money/units';
import type { DocumentPaper } from '../receipt/document-paper';
import type { MakerSettled } from './people';

export interface MakerStatement {
  readonly maker: MakerSettled;
  readonly name: string;
  /** The unit of an item; empty for pieces. */
  readonly unit: (item: string) => string;
  readonly event: Pick<Row<'events'>, 'name' | 'days'>;
  readonly business: Pick<Row<'businesses'>, 'name' | 'currency' | 'locale'>;
}

type Figure = readonly [what: string, amount: number];

/** What came in, what goes off it, what is left to pay; rows of nothing are left out. */
function figuresOf({ maker }: MakerStatement): readonly Figure[] {
  const all: readonly Figure[] = [
    ['Sold, without tax', maker.sold + maker.cameBack],
    ['Brought back', -maker.cameBack],
    ['Commission', -maker.commission],
    ['To pay', maker.toPay],
    ['Paid', maker.paid],
  ];
  return all.filter(([what, amount]) => amount !== 0 || what === 'To pay');
}

const muchOf = (
  { unit }: MakerStatement,
  { item, quantity }: MakerSettled['goods'][number],
): string => quantityWords(quantity, item === null ? '' : unit(item));
const daysOf = ({ event, business }: MakerStatement): string =>
  event.days.map(({ date }) => dayWords(date, business.locale)).join(', ');

export function makerPaper(of: MakerStatement): DocumentPaper {
  const { maker, name, event, business } = of;
  const figure = (amount: number): string => figureText(amount, business.currency, business.locale);
  return {
    title: 'Statement for',
    number: name,
    head: business.name,
    facts: [
      ['Event', event.name],
      ['Day', daysOf(of)],
    ],
    columns: [
      { head: '', isFigure: false },
      { head: 'quantity', isFigure: true },
      { head: 'tax', isFigure: true },
      { head: `${business.currency} without tax`, isFigure: true },
    ],
    rows: [
      ...maker.goods.map((line) => [
        line.name,
        muchOf(of, line),
        figure(line.tax),
        figure(line.net),
      ]),
      ...figuresOf(of).map(([what, amount]) => [what, '', '', figure(amount)]),
    ],
    foot: maker.toPay === maker.paid ? 'Paid in full.' : 'Thank you for your goods.',
  };
}

/** The statement as a letter to whoever made the goods. */
export function makerLetter(of: MakerStatement): {
  readonly subject: string;
  readonly text: string;
} {
  const { maker, event, business } = of;
  const money = (amount: number): string => moneyText(amount, business.currency, business.locale);
  const where = `${event.name}, ${daysOf(of)}`;
  return {
    subject: `Your goods at ${where}`,
    text: [
      `This is what your goods brought at ${where}; amounts are without tax.`,
      '',
      ...maker.goods.map(
        (line) => `${muchOf(of, line)} × ${line.name}: ${money(line.net)} (tax ${money(line.tax)})`,
      ),
      '',
      ...figuresOf(of).map(([what, amount]) => `${what}: ${money(amount)}`),
      '',
      business.name,
    ].join('\r\n'),
  };
}

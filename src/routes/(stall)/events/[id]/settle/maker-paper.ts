/** A maker's statement of an event: on paper, in a file, and in a mail. */
import type { Row } from '$lib/core/books/tables';
import { guarded } from '$lib/core/formats/csv-cell';
import { quantityText, thousandths } from '$lib/core/money/units';
import type { MakerSettled } from '$lib/core/settle/people';
import type { DocumentPaper } from '$lib/paper/document-pdf';
import type { Letter } from '$lib/ui/files/mail-to';
import { saveCsv } from '$lib/ui/files/save-csv';
import { dayWords } from '$lib/ui/words/date-words';
import { makerMail } from '$lib/ui/words/maker-words';
import { quantityWords } from '$lib/ui/words/money-words';
import type { SettleNames } from '$lib/ui/words/settle-words';

export interface OfMaker {
  readonly maker: MakerSettled;
  readonly names: SettleNames;
  readonly event: Row<'events'>;
  readonly business: Row<'businesses'>;
}

type Figure = readonly [what: string, amount: number];

/** What came in, what goes off it, what is left to pay; rows of nothing are left out. */
const figuresOf = ({ maker }: OfMaker): readonly Figure[] => {
  const all: readonly Figure[] = [
    ['Sold, without tax', maker.sold + maker.cameBack],
    ['Brought back', -maker.cameBack],
    ['Commission', -maker.commission],
    ['To pay', maker.toPay],
    ['Paid', maker.paid],
  ];
  return all.filter(([what, amount]) => amount !== 0 || what === 'To pay');
};
const much = ({ names }: OfMaker, { item, quantity }: MakerSettled['goods'][number]): string =>
  quantityWords(quantity, item === null ? '' : names.unit(item));
const days = ({ event, business }: OfMaker): string =>
  event.days.map(({ date }) => dayWords(date, business.locale)).join(', ');

export function makerPaper(of: OfMaker): DocumentPaper {
  const { maker, names, event, business } = of;
  const { money } = names;
  return {
    title: 'Statement for',
    number: names.maker(maker.maker),
    head: business.name,
    facts: [
      ['Event', event.name],
      ['Day', days(of)],
    ],
    columns: [
      { head: '', isFigure: false },
      { head: 'quantity', isFigure: true },
      { head: 'tax', isFigure: true },
      { head: `${money.currency} without tax`, isFigure: true },
    ],
    rows: [
      ...maker.goods.map((line) => [
        line.name,
        much(of, line),
        money.figure(line.tax),
        money.figure(line.net),
      ]),
      ...figuresOf(of).map(([what, amount]) => [what, '', '', money.figure(amount)]),
    ],
    foot: maker.toPay === maker.paid ? 'Paid in full.' : 'Thank you for your goods.',
  };
}

/** The statement as a letter to whoever made the goods. */
export function makerLetter(of: OfMaker): Letter {
  const { maker, names, event, business } = of;
  const { money } = names;
  return makerMail({
    ...{ business: business.name, event: event.name, days: days(of) },
    lines: maker.goods.map(
      (line) =>
        `${much(of, line)} × ${line.name}: ${money.text(line.net)} (tax ${money.text(line.tax)})`,
    ),
    figures: figuresOf(of).map(([what, amount]) => `${what}: ${money.text(amount)}`),
  });
}

/** All makers' statements as one CSV file (RFC 4180), a line for each of their goods. */
export function saveMakersFile(
  makers: readonly MakerSettled[],
  { names, event }: Pick<OfMaker, 'names' | 'event'>,
): void {
  const { money } = names;
  saveCsv(
    `Makers ${event.short}`,
    makers.flatMap(({ maker, goods, commission, toPay, paid, sold, tax }) => {
      const name = guarded(names.maker(maker));
      const none = { quantity: '', net: '', tax: '', commission: '', to_pay: '', paid: '' };
      return [
        ...goods.map((line) => ({
          ...{ maker: name, goods: guarded(line.name), ...none },
          quantity: quantityText(thousandths(line.quantity)),
          ...{ net: money.plain(line.net), tax: money.plain(line.tax) },
        })),
        {
          ...{ maker: name, goods: 'all', ...none },
          ...{ net: money.plain(sold), tax: money.plain(tax) },
          ...{ commission: money.plain(commission), to_pay: money.plain(toPay) },
          paid: money.plain(paid),
        },
      ];
    }),
  );
}

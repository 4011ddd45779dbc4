/** A statement of account on paper, in a file, and in a mail. */
import { guarded } from '$lib/core/formats/csv-cell';
import type { Statement } from '$lib/core/held/statement';
import type { DocumentPaper } from '$lib/paper/document-pdf';
import type { Letter } from '$lib/ui/files/mail-to';
import { saveCsv } from '$lib/ui/files/save-csv';
import { dayWords } from '$lib/ui/words/date-words';
import { moveWords } from '$lib/ui/words/held-words';
import type { MoneyWords } from '$lib/ui/words/money-words';

export interface AboutStatement {
  readonly business: string;
  readonly customer: string;
  readonly which: 'customer' | 'credit';
  /** Local days, or empty. */
  readonly from: string;
  readonly to: string;
  readonly money: MoneyWords;
  readonly locale: string;
  readonly dayOf: (at: string) => string;
}

const signOf = ({ which }: AboutStatement): number => (which === 'credit' ? -1 : 1);
const closes = ({ which }: AboutStatement): string => (which === 'credit' ? 'Credit' : 'To pay');

const periodOf = ({ from, to, locale }: AboutStatement): string =>
  [
    from === '' ? '' : `from ${dayWords(from, locale)}`,
    to === '' ? '' : `until ${dayWords(to, locale)}`,
  ]
    .filter((part) => part !== '')
    .join(' ') || 'all of it';

export function statementPaper(statement: Statement, about: AboutStatement): DocumentPaper {
  const { money, locale, dayOf } = about;
  const figure = (amount: number): string => money.figure(signOf(about) * amount);
  return {
    title: 'Statement for',
    number: about.customer,
    head: about.business,
    facts: [['Period', periodOf(about)]],
    columns: [
      { head: 'day', isFigure: false },
      { head: 'what', isFigure: false },
      { head: money.currency, isFigure: true },
      { head: 'stands at', isFigure: true },
    ],
    rows: [
      ['', 'before', '', figure(statement.opening)],
      ...statement.lines.map((line) => [
        dayWords(dayOf(line.at), locale),
        [moveWords(line), line.number].filter((part) => part !== '').join(', '),
        figure(line.amount),
        figure(line.balance),
      ]),
    ],
    foot: `${closes(about)}: ${money.text(signOf(about) * statement.closing)}`,
  };
}

/** RFC 4180, ISO dates, decimal points. */
export function saveStatement(statement: Statement, about: AboutStatement): void {
  const { money, dayOf } = about;
  const plain = (amount: number): string => money.plain(signOf(about) * amount);
  saveCsv(`Statement ${about.customer}`, [
    { day: about.from, what: 'before', sale: '', amount: '', balance: plain(statement.opening) },
    ...statement.lines.map((line) => ({
      ...{ day: dayOf(line.at), what: guarded(moveWords(line)), sale: guarded(line.number) },
      ...{ amount: plain(line.amount), balance: plain(line.balance) },
    })),
  ]);
}

export function statementLetter(statement: Statement, about: AboutStatement): Letter {
  const { rows, foot } = statementPaper(statement, about);
  return {
    subject: `Your account with ${about.business}`,
    text: [
      `This is how your account stands, ${periodOf(about)}.`,
      '',
      ...rows.map(([day = '', what = '', amount = '', balance = '']) =>
        [day, what, amount, `stands at ${balance}`].filter((part) => part !== '').join(' · '),
      ),
      '',
      foot,
      '',
      about.business,
    ].join('\r\n'),
  };
}

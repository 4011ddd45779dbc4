/** What is said of standing charges, and of cards on file that are charged for them. */
import type { ChargeRefusal } from '../../core/charge/set-charge';
import type { Unit } from '../../core/daybook/kinds/charge';
import type { Row } from '../../core/books/tables';
import { shortDayWords } from './date-words';
import { invoiceRefusalWords } from './invoice-words';
import type { MoneyWords } from './money-words';

/** How often. @example oftenWords({ unit: 'week', every: 2 }) // => 'every 2 weeks' */
export const oftenWords = ({
  unit,
  every,
}: {
  readonly unit: Unit;
  readonly every: number;
}): string => (every === 1 ? `every ${unit}` : `every ${String(every)} ${unit}s`);

export const UNIT_WORDS: Readonly<Record<Unit, string>> = {
  week: 'weeks',
  month: 'months',
  year: 'years',
};

export function chargeRefusalWords(refusal: ChargeRefusal, money: MoneyWords): string {
  switch (refusal.code) {
    case 'invoice/line-no-name':
    case 'invoice/line-quantity':
    case 'invoice/line-amount':
      return invoiceRefusalWords(refusal, money);
    case 'charge/not-headed':
      return 'Nobody has said yet how invoices are headed and numbered: do that first, under Invoices.';
    case 'charge/no-customer':
      return 'Say who is charged: a customer who is known here.';
    case 'charge/nothing':
      return 'Write what is charged, and an amount above nothing.';
    case 'charge/every-wrong':
      return `“${refusal.typed}” is no whole number from 1 to 99.`;
    case 'charge/day-wrong':
      return `“${refusal.typed}” is no day there is.`;
    case 'charge/past':
      return `It would have been due already: choose ${shortDayWords(refusal.today, money.locale)} or a later day.`;
    case 'charge/until-before':
      return `It cannot end before ${shortDayWords(refusal.from, money.locale)}; leave it empty for no end.`;
    case 'charge/country-wrong':
      return `“${refusal.typed}” is no country; choose one.`;
    case 'charge/no-way':
      return 'That way to pay takes no cards, or was put away; choose another.';
    case 'charge/no-card':
      return 'No card of theirs is on file: put one on file on their page, or let them pay when they are asked.';
    case 'charge/expired':
      return `Their card on file held until ${refusal.expiry.slice(5)}/${refusal.expiry.slice(2, 4)}: put another on file first.`;
    case 'charge/no-consent':
      return 'Ask them whether their card may be charged each time, and say how they agreed.';
    case 'charge/no-mail':
      return 'No mail address of theirs is known: write it on their page first.';
  }
}

/** Why a card on file did not pay, and what to do. */
export function notChargedWords({ why, says }: Pick<Row<'chargeCards'>, 'why' | 'says'>): string {
  switch (why) {
    case 'no card':
      return 'There was no card on file: put one on file and try again, or ask for the money.';
    case 'expired':
      return 'The card on file had expired: put another on file and try again, or ask for the money.';
    case 'halted':
      return 'The charge was halted before its card was asked: ask for the money, or try the card if the customer agrees.';
    case 'no acquirer':
      return 'Nobody takes cards for this server: ask for the money.';
    default:
      return `The card was declined${says === '' ? '' : ` (${says})`}: ask the customer, then try again or take the money otherwise.`;
  }
}

const cardNamed = (last4: string): string =>
  last4 === '' ? 'a card that is on file no more' : `the card ending ${last4}`;

const WHY_WORDS: Readonly<Record<string, string>> = {
  'no card': 'no card on file',
  expired: 'the card had expired',
  halted: 'the charge was halted',
  'no acquirer': 'nobody takes cards here',
};

/** How a card stands, in a few words. */
export const cardTryWords = (
  { is, amount, last4, why }: Pick<Row<'chargeCards'>, 'is' | 'amount' | 'last4' | 'why'>,
  money: MoneyWords,
): string => {
  switch (is) {
    case 'paid':
      return `${money.text(amount)} paid by ${cardNamed(last4)}`;
    case 'failed':
      return `${money.text(amount)} not charged: ${WHY_WORDS[why] ?? `declined by ${cardNamed(last4)}`}`;
    case 'again':
      return 'Tried again';
  }
};

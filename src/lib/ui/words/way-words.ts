/** Words about ways to pay. */
import type { Row } from '../../core/books/tables';
import type { Method } from '../../core/payment/methods';
import { allWays } from '../../core/payment/ways';
import type { WayRefusal } from '../../core/payment/set-way';
import { EXCHANGE, EXCHANGE_NAME } from '../../core/payment/methods';
import type { MoneyWords } from './money-words';

export const METHOD_WORDS: Readonly<Record<Method, string>> = {
  cash: 'notes and coins',
  card: 'a card at the reader',
  keyed: 'a card that is typed in',
  cheque: 'a cheque',
  transfer: 'a bank transfer',
  own: 'our own: noted here, done elsewhere',
  account: 'on account: the customer owes it',
  credit: 'credit that is kept for the customer',
  voucher: 'a voucher',
  deposit: 'the deposit of an order that is handed over',
  points: 'points of the customer',
  reward: 'a reward that the customer has reached',
};

/** What a way is called, also one that nobody set up. */
export const wayNameOf = (id: string, rows: readonly Row<'ways'>[]): string =>
  id === EXCHANGE ? EXCHANGE_NAME : (allWays(rows).find((way) => way.id === id)?.name ?? id);

/** What is special about a way, in a line. */
export function wayLine(way: Row<'ways'>, money: MoneyWords): string {
  const { surchargeRate, surchargeFixed } = way;
  const surcharge = [
    surchargeRate === '0' || surchargeRate === '' ? '' : `${surchargeRate} %`,
    surchargeFixed === 0 ? '' : money.text(surchargeFixed),
  ].filter((part) => part !== '');
  return [
    way.side === 'card' ? 'card price' : 'cash price',
    surcharge.length === 0 ? '' : `${surcharge.join(' + ')} on top`,
    way.reference === '' ? '' : `asks for ${way.reference}`,
    way.needsCustomer ? 'for named customers' : '',
    way.givesChange ? 'gives change' : '',
    way.isActive ? '' : 'put away',
  ]
    .filter((part) => part !== '')
    .join(' · ');
}

export function wayRefusalWords(refusal: WayRefusal): string {
  switch (refusal.code) {
    case 'way/no-name':
      return 'Give it a name, as people at the stall call it.';
    case 'way/taken':
      return `There is a way to pay called ${refusal.name} already.`;
    case 'way/rate-wrong':
      return `“${refusal.typed}” is not a percentage; type figures from 0 to 100, such as 1.8.`;
    case 'way/amount-wrong':
      return `“${refusal.typed}” is not an amount; type figures such as 0.50.`;
    case 'way/days-wrong':
      return `“${refusal.typed}” is no number of days; type figures such as 365, or leave it empty.`;
    case 'way/cash-stays':
      return 'Cash is always there; an event can leave it out.';
  }
}

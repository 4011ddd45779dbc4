/** What is said of orders of customers: quotes, goods that are kept, orders to collect. */
import type { OrderEnd } from '../../core/loose-end/order-ends';
import type { GoodsState, LineChange, MoneyState, OrderNow } from '../../core/order/order-state';
import type { OrderRefusal, OrderSort } from '../../core/order/set-order';
import { shortDayWords } from './date-words';
import type { MoneyWords } from './money-words';

export const SORT_WORDS: Readonly<Record<OrderSort, string>> = {
  quote: 'Quote',
  kept: 'Kept for them',
  collect: 'To collect',
};

export const GOODS_WORDS: Readonly<Record<GoodsState, string>> = {
  quoted: 'quoted',
  'out of date': 'out of date',
  waiting: 'waiting for goods',
  ready: 'ready',
  'in part': 'handed over in part',
  'handed over': 'handed over',
  off: 'called off',
};

export const MONEY_WORDS: Readonly<Record<MoneyState, string>> = {
  'to pay': 'to pay',
  'in part': 'paid in part',
  paid: 'paid',
};

/** How it stands, goods and money apart; of what is over only the goods. */
export const standsOf = ({ goods, money }: Pick<OrderNow, 'goods' | 'money'>): string =>
  goods === 'off' || goods === 'quoted' || goods === 'out of date'
    ? GOODS_WORDS[goods]
    : `${GOODS_WORDS[goods]}, ${MONEY_WORDS[money]}`;

export function orderRefusalWords(refusal: OrderRefusal, money: MoneyWords): string {
  switch (refusal.code) {
    case 'order/nothing-on-it':
      return 'Put the goods on the slip first.';
    case 'order/no-customer':
      return 'Put the customer on the slip first: it is for them.';
    case 'order/not-plain':
      return NOT_PLAIN[refusal.why];
    case 'order/day-wrong':
      return `“${refusal.typed}” is no day there is.`;
    case 'order/day-over':
      return `${shortDayWords(refusal.until, money.locale)} is over: take today or a day to come.`;
    case 'order/no-day':
      return 'Say until when the quote holds.';
    case 'order/deposit-wrong':
      return `A deposit is an amount from nothing up to the ${money.text(refusal.total)} that it comes to.`;
    case 'order/no-reason':
      return 'Say why it is called off, in a few words.';
    case 'order/no-way':
      return 'No way to pay is a deposit yet: add one under Set-up, Ways to pay, and it can be spent when the order is handed over.';
    case 'order/ended':
      return 'All of it has been handed over already.';
    case 'order/changed':
      return `Something of ${refusal.number} was handed over meanwhile, or it was called off: take its lines off this slip, and hand over what is left from its page.`;
    case 'order/more-than-due':
      return `Only ${money.text(refusal.due)} is still to pay for it.`;
    case 'order/fee-more':
      return `Only ${money.text(refusal.left)} of the deposit is left.`;
  }
}

const NOT_PLAIN = {
  paid: 'Part of this slip has been paid: give those parts back first.',
  back: 'Goods come back on this slip: leave them out first.',
  'paid-in': 'Something is paid in on this slip: take that off first.',
  order: 'This slip hands over an order already.',
} as const;

/** What has changed of a line since; empty where nothing did. */
export const changeWords = (change: LineChange, money: MoneyWords): string =>
  change === null
    ? ''
    : change.is === 'gone'
      ? 'not sold any more'
      : `${money.text(change.now)} now`;

/** Why an order is a loose end, and what to do. */
export function orderEndWords({ why, now }: OrderEnd, event: string, locale: string): string {
  const { until } = now.order;
  switch (why) {
    case 'day':
      return `It was kept until ${shortDayWords(until, locale)}, and nobody has come for it. Ask them, and give it another day, or call it off and give back what was paid.`;
    case 'event':
      return `It was to be collected at ${event}, which is over. Ask them, and name another event, or call it off and give back what was paid.`;
    case 'twice':
      return 'More of it was handed over than was ordered: two devices out of touch may each have done it. See its sales, and void the one that was not.';
  }
}

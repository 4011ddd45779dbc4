/** What is said of accounts that somebody holds: what a customer owes, their credit, vouchers. */
import type { Row } from '../../core/books/tables';
import type { SetHeldRefusal } from '../../core/held/set-held';
import type { HeldMove } from '../../core/held/statement';
import { lastDayOf, type HeldFacts, type HeldRefusal } from '../../core/held/spend';
import { voucherText } from '../../core/held/voucher-number';
import type { CustomerHolds } from '../../core/held/customer-holds';
import { pointsHeldWords } from './points-words';
import { shortDayWords } from './date-words';
import type { Kind } from '../../core/daybook/kinds';
import type { HeldHead } from '../../core/held/held-account';
import type { VoucherStands } from '../../core/held/voucher-list';
import { counted, type MoneyWords } from './money-words';

/** What is shown of what moved while the server has not said the rest. */
export const WHAT_IS_HERE = 'This is what this device has.';

/** What a way to pay is called until somebody says otherwise. */
export const HELD_NAMES: Readonly<Record<string, string>> = {
  account: 'On account',
  credit: 'Credit',
  voucher: 'Voucher',
  deposit: 'Deposit',
  points: 'Points',
  reward: 'Reward',
};

/** What lines of a slip are called that are paid in. */
export const HELD_LINES = {
  customer: 'Paid on account',
  credit: 'Credit paid in',
  voucher: 'Voucher',
  deposit: 'Deposit',
} as const;

/** What a customer has and owes, beside their name; empty where that is nothing. */
export function holdsWords(
  { owes, credit, limit, orders, deposits, points }: CustomerHolds,
  money: MoneyWords,
): string {
  const isOver = limit !== null && owes > limit;
  return [
    owes > 0 ? `owes ${money.text(owes)}${isOver ? ', over their limit' : ''}` : '',
    owes < 0 ? `has paid ${money.text(-owes)} too much` : '',
    credit > 0 ? `has ${money.text(credit)} credit` : '',
    credit < 0 ? `has spent ${money.text(-credit)} more credit than they had` : '',
    orders === 0 ? '' : orders === 1 ? 'an order is kept' : `${String(orders)} orders are kept`,
    deposits > 0 ? `${money.text(deposits)} deposit` : '',
    ...(points === null ? [] : pointsHeldWords(points, money)),
  ]
    .filter((part) => part !== '')
    .join(' · ');
}

const USED_UP: Readonly<Record<HeldHead, string>> = {
  customer: 'Nothing is left there.',
  credit: 'No credit is kept for this customer.',
  voucher: 'Nothing is left on this voucher.',
  deposit: 'No deposit is left on this order.',
};

export function heldRefusalWords(refusal: HeldRefusal, money: MoneyWords): string {
  switch (refusal.code) {
    case 'held/no-customer':
      return 'Put the customer on the slip first: it is theirs to pay or to owe.';
    case 'held/no-order':
      return 'A deposit pays for what is handed over of its order: take the order to the counter first.';
    case 'held/no-number':
      return 'Type or scan the voucher’s number: letters and figures, four at least.';
    case 'held/mistyped':
      return `${voucherText(refusal.number)} has a slip in it: look at it once more.`;
    case 'held/other-business':
      return `${voucherText(refusal.number)} is a voucher of another business.`;
    case 'held/unknown':
      return `No voucher ${voucherText(refusal.number)} is known here. If it was sold today on another device, let both send first.`;
    case 'held/blocked':
      return `${voucherText(refusal.number)} is blocked: ${refusal.reason}`;
    case 'held/out-of-date':
      return `${voucherText(refusal.number)} could be spent until ${shortDayWords(refusal.until, money.locale)}.`;
    case 'held/used-up':
      return USED_UP[refusal.of];
    case 'held/less':
      return `Only ${money.text(refusal.left)} is left there; take that, and the rest another way.`;
    case 'held/other-goods':
      return `That voucher is for goods with ${refusal.name}, and was sold with it: nothing that is left to pay here has that tax.`;
    case 'held/goods-less':
      return `Only ${money.text(refusal.left)} of this is for goods that the voucher is for; take that, and the rest another way.`;
    case 'held/offline-most':
      return refusal.most === 0
        ? 'With no network it is not taken: it may be spent elsewhere meanwhile. Take another way.'
        : `With no network at most ${money.text(refusal.most)} of it is taken: it may be spent elsewhere meanwhile.`;
    case 'held/no-tip':
      return 'A tip is given in money: take it off here, or with a part in cash or on a card.';
    case 'held/over-limit':
      return refusal.limit === 0
        ? 'Nothing was agreed that this customer may owe; somebody with the right can let them.'
        : `They may owe ${money.text(refusal.limit)} and owe ${money.text(refusal.owes)} already; somebody with the right can let them owe more.`;
  }
}

/** What stands on an account that something is to be paid from. */
export function heldSaying(method: string, facts: HeldFacts, money: MoneyWords): string {
  const { balance, creditLimit } = facts;
  if (method === 'account') {
    const owes = balance > 0 ? `They owe ${money.text(balance)}` : 'They owe nothing';
    return creditLimit === null ? `${owes}.` : `${owes}, and may owe ${money.text(creditLimit)}.`;
  }
  const until = lastDayOf(facts);
  return [
    `${money.text(-balance)} is left`,
    until === '' ? '' : `, to be spent until ${shortDayWords(until, money.locale)}`,
    '.',
  ].join('');
}

/** What may be owed, until when, and whether it is more than that. */
/** What is agreed with a customer: a discount, how much they may owe, and for how long. */
export const agreedWords = (
  { discount, creditLimit, terms }: Pick<Row<'customers'>, 'discount' | 'creditLimit' | 'terms'>,
  money: MoneyWords,
): string =>
  [
    discount === '0' ? 'no discount' : `${discount} % off`,
    limitWords(0, creditLimit, terms, money),
  ].join('; ');

export function limitWords(
  owes: number,
  limit: number | null,
  terms: number,
  money: MoneyWords,
): string {
  const days = terms === 0 ? 'at once' : `within ${counted(terms, 'day')}`;
  if (limit === null) return `any amount, to pay ${days}`;
  if (limit === 0) return owes > 0 ? 'nothing was agreed' : 'may owe nothing';
  return owes > limit
    ? `over the ${money.text(limit)} that was agreed`
    : `of ${money.text(limit)} at most, to pay ${days}`;
}

const POINT_MOVES: Readonly<Partial<Record<Kind, string>>> = {
  'payment.taken': 'Spent',
  'sale.rung': 'Brought by what was bought',
};

const MOVES: Readonly<Partial<Record<Kind, string>>> = {
  'payment.taken': 'Spent',
  'sale.rung': 'Paid in',
  'payment.reversed': 'Given back before it was rung up',
  'sale.voided': 'Sale voided',
  'void.undone': 'Void taken back',
  'return.made': 'Goods came back',
  'refund.made': 'Given back without a sale',
  'order.paid': 'Paid where it was ordered',
  'voucher.lapsed': 'Ran out',
  'invoice.made': 'Invoice',
  'invoice.credited': 'Invoice credited',
  'charge.paid': 'Card on file charged',
};

/** What moved on an account, in a word or two; its sale is named beside it. */
export function moveWords({
  kind,
  amount,
  account,
}: Pick<HeldMove, 'kind' | 'amount' | 'account'>): string {
  if (kind === 'payment.taken' && account.startsWith('customer:')) return 'Bought on account';
  if (kind === 'points.moved') return amount > 0 ? 'Taken' : 'Given';
  if (account.startsWith('points:')) return POINT_MOVES[kind] ?? MOVES[kind] ?? 'Put right';
  if (kind === 'held.moved')
    return amount > 0 ? 'Moved to another account' : 'Moved from another account';
  return MOVES[kind] ?? 'Put right';
}

/** Why nothing was said of a voucher, or moved. */
export function setHeldWords(
  refusal: SetHeldRefusal | { readonly code: 'slip/gone' },
  money: MoneyWords,
): string {
  switch (refusal.code) {
    case 'held/no-reason':
      return 'Say why, in a few words: “lost” will do.';
    case 'held/not-over':
      return refusal.until === ''
        ? 'It can be spent on any day, and does not run out.'
        : `It can be spent until ${shortDayWords(refusal.until, money.locale)}: it has not run out yet.`;
    case 'held/day-wrong':
      return `“${refusal.typed}” is no day there is.`;
    case 'slip/gone':
    case 'held/nothing-there':
      return 'Nothing is left there to move.';
    case 'held/less-there':
      return `Only ${money.text(refusal.left)} is left there.`;
  }
}

const STANDS: Readonly<Record<VoucherStands, string>> = {
  open: 'Can be spent',
  'used up': 'Used up',
  'out of date': 'Out of date',
  blocked: 'Blocked',
  'spent twice': 'More was spent than there was',
  'sold twice': 'The number was sold twice',
};
export const standsWords = (stands: VoucherStands): string => STANDS[stands];

/** What an event changed on the accounts of one kind. */
export function heldAtEventWords(head: HeldHead, amount: number, money: MoneyWords): string {
  const much = money.text(Math.abs(amount));
  if (amount === 0)
    return `${{ customer: 'Customers’ accounts', credit: 'Credit', voucher: 'Vouchers', deposit: 'Deposits' }[head]}: as much was paid in as was taken.`;
  switch (head) {
    case 'customer':
      return amount > 0
        ? `Customers owe ${much} more than before: it comes later, and is on their accounts.`
        : `Customers paid ${much} more than they were lent here.`;
    case 'credit':
      return amount < 0
        ? `${much} more is owed to customers as credit.`
        : `${much} of customers’ credit was spent here.`;
    case 'voucher':
      return amount < 0
        ? `${much} more is owed on vouchers.`
        : `${much} of vouchers was spent here that others had paid for before.`;
    case 'deposit':
      return amount < 0
        ? `${much} more was paid in as deposits than was spent of them.`
        : `${much} of deposits that had been paid before was spent here.`;
  }
}

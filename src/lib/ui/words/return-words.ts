/** What is said of goods that come back. */
import type { BringBackRefusal } from '../../core/sale/exchange';
import type { RefundRefusal } from '../../core/sale/make-refund';
import type { ReturnRefusal } from '../../core/sale/make-return';
import { refundState, type CardRefund } from '../../core/payment/refund-state';
import { quantityWords, type MoneyWords } from './money-words';

export function returnRefusalWords(refusal: ReturnRefusal, money: MoneyWords): string {
  switch (refusal.code) {
    case 'return/voided':
      return 'This sale is void: all of it has been given back already.';
    case 'return/nothing':
      return 'Type how much of which goods came back, or what is taken off which price.';
    case 'return/quantity-wrong':
      return `“${refusal.typed}” of ${refusal.name} cannot come back; type how many, such as 1.`;
    case 'return/more':
      return `Of ${refusal.name} only ${quantityWords(refusal.left, refusal.unit)} can still come back.`;
    case 'return/off-wrong':
      return `“${refusal.typed}” cannot be taken off ${refusal.name}; type an amount such as 2.50, or 10 %.`;
    case 'return/off-more':
      return `Of what ${refusal.name} cost only ${money.text(refusal.left)} is left to take off.`;
    case 'return/no-reason':
      return 'Say why, in a few words: “wilted” will do.';
    case 'return/card-more':
      return `Only ${money.text(refusal.left)} can still go back to that card; choose how the rest is given back.`;
    case 'return/account-more':
      return `Only ${money.text(refusal.left)} of it was paid so; choose how the rest is given back.`;
    case 'return/spent':
      return `Of it only ${money.text(refusal.left)} has not been spent: what was spent cannot be given back.`;
    case 'return/no-drawer':
      return 'Choose the drawer that the cash comes out of; one must be open here.';
  }
}

/** Why goods were not put on the slip, to pay for others. */
export function bringBackWords(refusal: BringBackRefusal, money: MoneyWords): string {
  if (refusal.code !== 'slip/part-paid' && refusal.code !== 'exchange/already')
    return returnRefusalWords(refusal, money);
  return refusal.code === 'slip/part-paid'
    ? 'The slip at the counter is being paid: ring that one up first.'
    : 'Goods of this sale are on the slip already, to come back; leave those out there first.';
}

/** Where the money is that goes back to a card. */
export function refundWords(
  refund: Pick<CardRefund, 'amount' | 'state' | 'reason'>,
  money: MoneyWords,
): string {
  const amount = money.text(refund.amount);
  switch (refundState(refund)) {
    case 'to do':
      return `${amount} goes to the card as soon as there is network.`;
    case 'done':
      return `${amount} is on its way to the card.`;
    case 'refused':
      return `The acquirer will not give ${amount} back to the card: ${refund.reason} Give it back another way.`;
  }
}

export function refundRefusalWords(refusal: RefundRefusal, money: MoneyWords): string {
  switch (refusal.code) {
    case 'refund/nothing':
      return 'Choose goods, or type an amount, and what is given back for them.';
    case 'refund/quantity-wrong':
      return `“${refusal.typed}” of ${refusal.name} cannot come back; type how many, such as 1.`;
    case 'refund/amount-wrong':
      return `“${refusal.typed}” for ${refusal.name} is no amount; type figures such as 4.50.`;
    case 'refund/no-reason':
      return 'Say why, in a few words: “from the spring market” will do.';
    case 'refund/no-drawer':
      return 'Choose the drawer that the cash comes out of; one must be open here.';
    case 'refund/limit':
      return `Without a sale you may give back ${money.text(refusal.left)} more today; somebody who may give back more can lend their right.`;
  }
}

/** Sentences for outcomes of the core: what is wrong, and what would be right. */
import type { DrawerRefusal } from '../../core/drawer/commands';
import type { EntryRefusal } from '../../core/entry-line/understand';
import type { ExchangeRefusal } from '../../core/sale/ring-up-exchange';
import type { RingUpRefusal } from '../../core/sale/ring-up';
import type { KeepRefusal } from '../../core/set-aside/kept-slips';
import { MOST_LINES, type SlipRefusal } from '../../core/slip/open-slip';
import type { DiscountRefusal } from '../../core/slip/read-discount';
import type { OrderRefusal } from '../../core/order/set-order';
import { promotionRefusalWords } from './points-words';
import { heldRefusalWords } from './held-words';
import { quantityWords, type MoneyWords } from './money-words';
import { orderRefusalWords } from './order-words';
import { returnRefusalWords } from './return-words';

export type AnyRefusal =
  | EntryRefusal
  | DrawerRefusal
  | RingUpRefusal
  | DiscountRefusal
  | KeepRefusal
  | SlipRefusal
  | OrderRefusal
  | ExchangeRefusal
  | { readonly code: 'exchange/changed'; readonly number: string }
  | { readonly code: 'slip/gone' | 'slip/ended' }
  | { readonly code: 'slip/joined'; readonly names: readonly string[] }
  | { readonly code: 'drawer/none' }
  | { readonly code: 'event/not-trading' }
  | { readonly code: 'pay/no-cash-here' }
  | { readonly code: 'right/lacking' };

const isOfOrder = (refusal: AnyRefusal): refusal is OrderRefusal =>
  refusal.code.startsWith('order/');

export function refusalWords(refusal: AnyRefusal, money: MoneyWords): string {
  if (isOfOrder(refusal)) return orderRefusalWords(refusal, money);
  switch (refusal.code) {
    case 'amount/empty':
      return 'Type an amount above zero, such as 4.50.';
    case 'amount/not-a-number':
      return `“${refusal.typed}” is not an amount; type figures such as 4.50.`;
    case 'amount/too-many-decimals':
      return refusal.decimals === 0
        ? `“${refusal.typed}” has decimals; this currency has none.`
        : `“${refusal.typed}” has too many decimals; use ${String(refusal.decimals)}.`;
    case 'amount/negative':
      return `“${refusal.typed}” is below zero; type what is handed over.`;
    case 'amount/too-large':
      return `“${refusal.typed}” is more than one amount can be.`;
    case 'entry/check-digit':
      return `${refusal.typed} has a wrong check digit: scan it again, or look for a slip of the finger.`;
    case 'entry/no-such-maker':
      return `There is no maker ${String(refusal.number)}; makers are under Set-up.`;
    case 'entry/tag-wrong':
      return 'A hang tag is # and the maker’s number, what it is, the tag’s number and the price: #12 pots 345 18.00.';
    case 'entry/negative':
      return 'A quantity or amount below zero cannot be sold; take the line off the slip instead.';
    case 'entry/no-such-thing':
      return `Nothing here is called “${refusal.typed}”. Type an amount and a word to sell it unlisted.`;
    case 'slip/quantity-not-positive':
      return 'The quantity must be above zero; to take a line off, remove it.';
    case 'slip/quantity-too-large':
      return 'One line holds at most 9,999.';
    case 'slip/too-many-decimals':
      return refusal.decimals === 0
        ? 'This is sold in whole pieces.'
        : `This is sold by the ${refusal.unit} with at most ${String(refusal.decimals)} decimals.`;
    case 'slip/no-such-line':
      return 'That line is no longer on the slip.';
    case 'slip/no-reason':
      return 'Say why the price is another; “last one, bruised” will do.';
    case 'slip/price-wrong':
      return 'Type a price from zero, such as 4.50.';
    case 'discount/wrong':
      return `“${refusal.typed}” is not a discount; type 10 % or an amount such as 2.00.`;
    case 'exchange/already':
      return 'Goods of that sale are on this slip already, to come back; leave those out first.';
    case 'exchange/changed':
      return `Of ${refusal.number} something has come back meanwhile: leave it out of this slip, and put on what is still to come back.`;
    case 'exchange/nothing-back':
      return 'Nothing comes back on this slip.';
    case 'exchange/still-to-pay':
      return `${money.text(refusal.left)} is still to pay; what comes back is not enough.`;
    case 'exchange/no-way-back':
      return `Choose how ${money.text(refusal.over)} goes back.`;
    case 'return/no-drawer':
      return returnRefusalWords(refusal, money);
    case 'return/card-more':
    case 'return/account-more':
      return `Only ${money.text(refusal.left)} can still go back to that card; choose another way for what is left.`;
    case 'slip/part-paid':
      return 'Part of this slip has been paid, so what it comes to stays. Give those parts back first.';
    case 'aside/part-paid':
      return 'Part of this slip has been paid: finish the payment, or give those parts back first.';
    case 'pay/nothing-left':
      return 'Nothing is left to pay.';
    case 'pay/too-many-parts':
      return `A slip is paid in at most ${String(refusal.most)} parts: this one must take all that is left.`;
    case 'pay/not-as-asked':
      return `The card was asked for ${money.text(refusal.asked)}, and this would come to ${money.text(refusal.comesTo)}: it is left, and undone by itself. Ask again.`;
    case 'pay/not-an-amount':
      return 'Type an amount above zero, such as 13.50.';
    case 'pay/more-than-left':
      return `${refusal.way} gives no change, and only ${money.text(refusal.left)} is left to pay.`;
    case 'pay/tip-wrong':
      return 'A tip is an amount from zero, such as 1.50.';
    case 'pay/needs-customer':
      return `${refusal.way} is for named customers: put one on the slip first.`;
    case 'pay/needs-reference':
      return `${refusal.way} asks for its ${refusal.reference}.`;
    case 'aside/nothing-on-it':
      return 'There is nothing on the slip to set aside.';
    case 'tab/no-name':
      return 'Give the tab a name: the bench, the table, the group.';
    case 'slip/paid-in':
      return `${refusal.name} is an amount that is paid in: take it off, and put it on again with another.`;
    case 'slip/not-blank':
      return 'Something is on the slip already: ring it up or set it aside first.';
    case 'slip/ordered':
      return `${refusal.name} was ordered at what it is here: take it off to sell it otherwise.`;
    case 'slip/ordered-most':
      return `Only ${quantityWords(refusal.most, '')} of ${refusal.name} are left of the order; put more on as a line of its own.`;
    case 'slip/paid-in-twice':
      return `${refusal.name} is on the slip already, for the same account.`;
    case 'slip/paid-in-wrong':
      return 'Type an amount above zero, such as 20.00.';
    case 'held/no-customer':
    case 'held/no-number':
    case 'held/no-order':
    case 'held/mistyped':
    case 'held/other-business':
    case 'held/unknown':
    case 'held/blocked':
    case 'held/out-of-date':
    case 'held/used-up':
    case 'held/less':
    case 'held/other-goods':
    case 'held/goods-less':
    case 'held/no-tip':
    case 'held/offline-most':
    case 'held/over-limit':
      return heldRefusalWords(refusal, money);
    case 'points/none':
    case 'points/after-voucher':
    case 'points/over':
    case 'points/too-little':
    case 'points/less':
    case 'reward/unknown':
    case 'reward/not-on':
    case 'reward/not-reached':
    case 'reward/no-goods':
      return promotionRefusalWords(refusal, money);
    case 'slip/full':
      return `A slip holds ${String(MOST_LINES)} lines, and no more text than fits into one sale; take payment for these first.`;
    case 'slip/gone':
      return 'This slip was rung up or changed in another window of this device; look at it again.';
    case 'slip/joined':
      return `Somebody has changed this slip on another device: ${refusal.names.join(', ')}. Look at it again before you take payment.`;
    case 'slip/ended':
      return 'That slip has been rung up or set aside already.';
    case 'sale/nothing-on-it':
      return 'There is nothing on the slip yet.';
    case 'sale/paid-short':
      return `That leaves ${money.text(refusal.left)} to pay.`;
    case 'sale/not-an-amount':
      return 'Type what was handed over, such as 20 or 13.50.';
    case 'event/not-trading':
      return 'No event is trading on this device, so nothing can be rung up.';
    case 'pay/no-cash-here':
      return 'This event takes no cash; take payment another way.';
    case 'right/lacking':
      return 'Somebody with the right to it must lend it first; the slip says which.';
    case 'drawer/open-already':
      return `There is a ${refusal.name} open already: use that one, or give this one another name.`;
    case 'drawer/none':
      return 'No drawer is open on this device; open one first.';
    case 'drawer/no-name':
      return 'Give the drawer a name.';
    case 'drawer/bad-count':
      return `${money.denomination(refusal.value)}: type how many there are, a whole number from 0.`;
    case 'drawer/counted-already':
      return 'This drawer has been counted; its final read stays as it is.';
    case 'drawer/count-again':
      return 'That is further off than you let pass at once. Count it once more; the second count stands.';
    case 'drawer/leaves-too-much':
      return `More would stay and be bagged than the ${money.text(refusal.counted)} that were counted.`;
    case 'drawer/amount-wrong':
      return `“${refusal.typed}” is no amount; type one such as 50 or 120.50.`;
    case 'drawer/no-bag-number':
      return 'Type the number that stands on the bag.';
    case 'drawer/reason-wanted':
      return `Say why it is ${money.off(refusal.difference)}; a guess is better than nothing.`;
  }
}

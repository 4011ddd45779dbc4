/** What is said of accounts that somebody holds: what a customer owes, their credit, vouchers. */
import type { HeldRefusal } from '../../core/held/spend';
import { voucherText } from '../../core/held/voucher-number';
import { dayWords } from './date-words';
import type { MoneyWords } from './money-words';

export function heldRefusalWords(refusal: HeldRefusal, money: MoneyWords): string {
  switch (refusal.code) {
    case 'held/no-customer':
      return 'Put the customer on the slip first: it is theirs to pay or to owe.';
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
      return `${voucherText(refusal.number)} could be spent until ${dayWords(refusal.until, money.locale)}.`;
    case 'held/used-up':
      return refusal.of === 'credit'
        ? 'No credit is kept for this customer.'
        : 'Nothing is left on this voucher.';
    case 'held/less':
      return `Only ${money.text(refusal.left)} is left there; take that, and the rest another way.`;
    case 'held/no-tip':
      return 'A tip is given in money: take it off here, or with a part in cash or on a card.';
    case 'held/over-limit':
      return refusal.limit === 0
        ? 'Nothing was agreed that this customer may owe; somebody with the right can let them.'
        : `They may owe ${money.text(refusal.limit)} and owe ${money.text(refusal.owes)} already; somebody with the right can let them owe more.`;
  }
}

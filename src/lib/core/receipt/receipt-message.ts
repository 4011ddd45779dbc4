/** A receipt as a text message: what fits into one, the rest left out and said to be. */
import { moneyText } from '../money/amount-text';
import { quantityText, thousandths } from '../money/units';
import type { Receipt } from './receipt';
import type { PaperWords } from './receipt-text';

/** Letters; two messages of GSM 03.38 joined (3GPP TS 23.040 leaves 153 each). */
export const MOST_LETTERS = 306;

/**
 * Who, what, how much, how it was paid, and the code that proves it. As many goods as fit are named.
 * A gift receipt has no amount in it.
 */
export function receiptMessage(receipt: Receipt, { locale, when }: PaperWords): string {
  const { vendor, number, isVoid, isGift, lines, parts, total, back, currency, check } = receipt;
  const begin = `${vendor.slice(0, 60)}: ${isGift ? 'gift receipt' : 'sale'} ${number}${isVoid ? ', void' : ''}, ${when}.`;
  const ways = [...new Set(parts.map(({ name }) => name))].join(', ').slice(0, 60);
  const money = (amount: number): string => moneyText(amount, currency, locale);
  const gone = back.reduce((all, each) => all + each.total, 0);
  const given = gone === 0 ? '' : ` ${money(gone)} given back.`;
  const end = `${isGift ? '' : ` ${money(total)}${ways === '' ? '' : `, ${ways}`}.${given}`} Code ${check}`;
  const goods = lines.map(({ quantity, unit, name }) => {
    const many = quantityText(thousandths(quantity));
    return `${many}${unit === '' ? '' : ` ${unit}`} × ${name}`;
  });
  const room = MOST_LETTERS - begin.length - end.length;
  return `${begin}${within(goods, room)}${end}`;
}

/** As many as fit into so many letters, and how many more there are. */
function within(goods: readonly string[], room: number): string {
  for (let named = goods.length; named > 0; named -= 1) {
    const more = goods.length - named;
    const text = ` ${goods.slice(0, named).join(', ')}${more === 0 ? '' : ` and ${String(more)} more`}.`;
    if (text.length <= room) return text;
  }
  return '';
}

/** The code on a receipt, as it is scanned: whose sale it is, and whether it is one of ours. */
import type { Row } from '../books/tables';
import { isSaleNumber } from '../sale/sale-number';
import { checkValue } from './receipt';

export interface ReceiptCode {
  /** As people call the sale. */
  readonly number: string;
  readonly check: string;
}

/** Null for anything else that is typed or scanned. */
export function receiptCodeIn(text: string): ReceiptCode | null {
  const [number = '', check = '', ...more] = text.trim().split(' ');
  const isCode = more.length === 0 && isSaleNumber(number) && /^[0-9a-f]{10}$/i.test(check);
  return isCode ? { number: number.toUpperCase(), check: check.toLowerCase() } : null;
}

/** Whether the receipt is of this sale, with prices or without; null for one of another sale, or another business. */
export function receiptOfSale(
  { number, check }: ReceiptCode,
  business: string,
  sale: Pick<Row<'sales'>, 'id' | 'number' | 'total'>,
): 'plain' | 'gift' | null {
  if (number !== sale.number) return null;
  if (check === checkValue(business, sale)) return 'plain';
  return check === checkValue(business, sale, true) ? 'gift' : null;
}

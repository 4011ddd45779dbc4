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

/** Whether the receipt is of this sale, and not one of another business that has its number too. */
export const isReceiptOf = (
  { number, check }: ReceiptCode,
  business: string,
  sale: Pick<Row<'sales'>, 'id' | 'number' | 'total'>,
): boolean => number === sale.number && check === checkValue(business, sale);

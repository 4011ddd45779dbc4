/** The code on a receipt, as it is scanned: whose sale it is, and whether it is one of ours. */
import type { Row } from '../books/tables';
import { checkValue } from './receipt';

export interface ReceiptCode {
  /** As people call the sale. */
  readonly number: string;
  readonly check: string;
}

/** Null for anything else that is typed or scanned. */
export function receiptCodeIn(text: string): ReceiptCode | null {
  const match = /^([A-Z]{1,3}\d+-\d+) ([0-9a-f]{10})$/i.exec(text.trim());
  const [, number = '', check = ''] = match ?? [];
  return match === null ? null : { number: number.toUpperCase(), check: check.toLowerCase() };
}

/** Whether the receipt is of this sale, and not one of another business that has its number too. */
export const isReceiptOf = (
  { number, check }: ReceiptCode,
  business: string,
  sale: Pick<Row<'sales'>, 'id' | 'number' | 'total'>,
): boolean => number === sale.number && check === checkValue(business, sale);

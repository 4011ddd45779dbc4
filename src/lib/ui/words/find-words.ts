/** What Find calls what it finds. */
import type { DocumentKind } from '../../core/find/documents';

interface KindWords {
  readonly one: string;
  readonly many: string;
}

export const kindWords: Readonly<Record<DocumentKind | 'sale', KindWords>> = {
  sale: { one: 'Sale', many: 'Sales' },
  return: { one: 'Return', many: 'Returns' },
  read: { one: 'Drawer read', many: 'Drawer reads' },
  cash: { one: 'Cash', many: 'Cash moved' },
  goods: { one: 'Goods moved', many: 'Goods moved' },
  list: { one: 'List of goods', many: 'Lists and orders' },
  count: { one: 'Count', many: 'Counts' },
  event: { one: 'Event', many: 'Events' },
  customer: { one: 'Customer', many: 'Customers' },
  order: { one: 'Order', many: 'Quotes and orders' },
  invoice: { one: 'Invoice', many: 'Invoices' },
  voucher: { one: 'Voucher', many: 'Vouchers' },
  item: { one: 'Goods', many: 'Goods' },
  supplier: { one: 'Supplier', many: 'Suppliers' },
};

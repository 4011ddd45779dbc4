/** Receipts that are to be sent. Where to is personal and stays with the entry. */
import type { EntryOf } from '../../daybook/kinds';
import { put, type Change } from '../change';
import { saidBy } from './said-by';

export const receiptAsked = (entry: EntryOf<'receipt.asked'>): Change[] => [
  put('receiptAsks', { id: entry.id, ...saidBy(entry), ...entry.body }),
];

/** What is said of goods that come back. */
import type { ReturnRefusal } from '../../core/sale/make-return';
import { quantityWords } from './money-words';

export function returnRefusalWords(refusal: ReturnRefusal): string {
  switch (refusal.code) {
    case 'return/voided':
      return 'This sale is void: all of it has been given back already.';
    case 'return/nothing':
      return 'Type how much of which goods came back.';
    case 'return/quantity-wrong':
      return `“${refusal.typed}” of ${refusal.name} cannot come back; type how many, such as 1.`;
    case 'return/more':
      return `Of ${refusal.name} only ${quantityWords(refusal.left, refusal.unit)} can still come back.`;
    case 'return/no-reason':
      return 'Say why, in a few words: “wilted” will do.';
    case 'return/no-drawer':
      return 'Choose the drawer that the cash comes out of; one must be open here.';
  }
}

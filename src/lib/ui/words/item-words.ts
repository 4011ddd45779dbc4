/** Sentences about what is wrong with an item, beside its field. */
import type { ItemRefusal } from '../../core/goods/set-item';

export function itemRefusalWords(refusal: ItemRefusal): string {
  switch (refusal.code) {
    case 'item/empty':
      return (
        {
          name: 'Give it a name.',
          choices: 'A choice needs a name and its values: Size, and 9 cm, 1 l.',
          extras: 'Groups of extras and the extras in them need names.',
        }[refusal.field] ?? 'Something must stand here.'
      );
    case 'item/not-an-amount':
      return `“${refusal.typed}” is not an amount; type figures such as 4.50.`;
    case 'item/not-a-quantity':
      return `“${refusal.typed}” is not a quantity; type figures such as 3 or 0.5.`;
    case 'item/code-taken':
      return `${refusal.by} has “${refusal.typed}” already; take another one.`;
    case 'item/check-digit':
      return `${refusal.typed} has a wrong check digit; it would be ${refusal.right}. Look at the label again.`;
    case 'item/too-long':
      return `That is too long; at most ${String(refusal.most)} characters.`;
    case 'item/too-many-variants':
      return `That makes ${String(refusal.count)} variants; at most 200 fit.`;
    case 'item/group-counts':
      return 'At least, at most and what is chosen to begin with do not go together; at most is no more than there are.';
    case 'item/twice':
      return `“${refusal.typed}” stands there twice.`;
  }
}

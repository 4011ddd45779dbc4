/** Items by their ids, as much of them as a name needs. */
type Named = ReadonlyMap<string, { readonly name: string; readonly detail: string }>;

/** As `itemName` has it; of an item that has not come here, that it is not known. */
export function nameAmong(items: Named, item: string): string {
  const known = items.get(item);
  return known === undefined ? 'something that is not known here' : itemName(known);
}

/** An item with what tells it from others of its name. @example itemName({ name: 'Lavender', detail: '10 cm pot' }) */
export const itemName = ({ name, detail }: { readonly name: string; readonly detail: string }) =>
  detail === '' ? name : `${name}, ${detail}`;

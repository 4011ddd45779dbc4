/** An item with what tells it from others of its name. @example itemName({ name: 'Lavender', detail: '10 cm pot' }) */
export const itemName = ({ name, detail }: { readonly name: string; readonly detail: string }) =>
  detail === '' ? name : `${name}, ${detail}`;

/** The keys of the counter, for what listens to them and for the list that shows them. */
export const COUNTER_KEYS = {
  '/': 'to the entry line',
  Enter: 'does what the entry line shows',
  '↓ ↑': 'another of the goods that fit',
  F2: 'take payment',
  F4: 'set the slip aside',
  F8: 'what is waiting',
  F9: 'exact cash',
  'Shift + F9': 'the last receipt again',
  'Ctrl + Enter': 'finish: take what is typed',
  Esc: 'back, or clear the entry line',
  '?': 'this list',
} as const;
export type CounterKey = keyof typeof COUNTER_KEYS;

/** As the list has it, `Shift + F9`; a sign that takes a shift is the sign alone. */
export function keyOf({
  key,
  shiftKey,
  ctrlKey,
}: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'ctrlKey'>): string {
  const name = key === 'Escape' ? 'Esc' : key;
  const isSign = key.length === 1;
  return `${ctrlKey ? 'Ctrl + ' : ''}${shiftKey && !isSign ? 'Shift + ' : ''}${name}`;
}

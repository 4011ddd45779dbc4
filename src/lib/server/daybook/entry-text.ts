import type { Entry } from '../../core/daybook/entry';

const texts = new WeakMap<Entry, string>();

/** An entry as JSON; written once, however often it is asked for: its size is counted twice before it is stored. */
export function textOf(entry: Entry): string {
  let text = texts.get(entry);
  if (text === undefined) {
    text = JSON.stringify(entry);
    texts.set(entry, text);
  }
  return text;
}

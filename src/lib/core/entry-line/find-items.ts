/** Finding goods by what they are called. */
import type { Row } from '../books/tables';
import { beginsWord, folded, wordsIn } from './words';

type Item = Row<'items'>;

/** Goods made ready for looking up; made once, when the goods change. */
export interface Goods {
  /** Own codes and barcodes, in lower case. */
  readonly byCode: ReadonlyMap<string, Item>;
  readonly names: readonly { readonly item: Item; readonly name: string }[];
}

/** Makes a set of goods ready for looking up; those no longer sold are left out. */
export function goodsOf(items: readonly Item[]): Goods {
  const sold = items.filter((item) => item.isActive && item.setStamp !== '');
  const byCode = new Map<string, Item>();
  for (const item of sold) {
    for (const code of [item.code, ...item.barcodes]) {
      if (code !== '' && !byCode.has(code.toLowerCase())) byCode.set(code.toLowerCase(), item);
    }
  }
  const names = sold
    .map((item) => ({ item, name: folded(`${item.name} ${item.detail} ${item.code}`) }))
    .sort((a, b) =>
      a.name === b.name ? (a.item.id < b.item.id ? -1 : 1) : a.name < b.name ? -1 : 1,
    );
  return { byCode, names };
}

const MOST_FOUND = 8;

/**
 * Items in whose name every word typed begins a word, or failing that stands anywhere; names that
 * begin with what was typed come first, then by name.
 */
export function findItems(typed: string, { names }: Goods): readonly Item[] {
  const words = wordsIn(typed);
  const [first] = words;
  if (first === undefined) return [];
  const ranked: Item[][] = [[], [], []];
  for (const { item, name } of names) {
    if (!words.every((word) => name.includes(word))) continue;
    const isStart = name.startsWith(first) && words.every((word) => beginsWord(name, word));
    const rank = isStart ? 0 : words.every((word) => beginsWord(name, word)) ? 1 : 2;
    ranked[rank]!.push(item);
    if (ranked[0]!.length >= MOST_FOUND) break;
  }
  return ranked.flat().slice(0, MOST_FOUND);
}

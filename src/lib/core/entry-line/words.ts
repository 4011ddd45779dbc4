/** What is typed to find something, word by word; capitals and accents make no difference. */

/** As it is compared: in lower case, without marks on letters. */
export const folded = (text: string): string =>
  text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** The words of it, apart by blanks and commas. */
export const wordsIn = (typed: string): readonly string[] =>
  folded(typed)
    .split(/[\s,]+/)
    .filter((word) => word !== '');

/**
 * Whether every word stands somewhere in one of the parts.
 * @param words As `wordsIn` has them.
 */
export function hasWords(parts: readonly string[], words: readonly string[]): boolean {
  const text = folded(parts.join(' '));
  return words.every((word) => text.includes(word));
}

/** Whether every word typed begins a word of the text. @param words As `wordsIn` has them. */
export function beginsWords(text: string, words: readonly string[]): boolean {
  const name = folded(text);
  return words.every((word) => beginsWord(name, word));
}

/** @param name Folded, and the word too. */
export function beginsWord(name: string, word: string): boolean {
  for (let at = name.indexOf(word); at !== -1; at = name.indexOf(word, at + 1)) {
    if (at === 0 || !/[\p{L}\p{N}]/u.test(name[at - 1]!)) return true;
  }
  return false;
}

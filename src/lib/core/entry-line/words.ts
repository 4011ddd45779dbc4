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

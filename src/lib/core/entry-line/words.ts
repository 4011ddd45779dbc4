/** What is typed to find something, word by word. */

/** The words of it in lower case, apart by blanks and commas. */
export const wordsIn = (typed: string): readonly string[] =>
  typed
    .toLowerCase()
    .split(/[\s,]+/)
    .filter((word) => word !== '');

/** Whether every word stands somewhere in one of the parts. */
export function hasWords(parts: readonly string[], words: readonly string[]): boolean {
  const text = parts.join(' ').toLowerCase();
  return words.every((word) => text.includes(word));
}

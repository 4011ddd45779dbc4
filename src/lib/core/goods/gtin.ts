/** Numbers of the GS1 system: their check digit, and what a shop's own labels carry in them. */

/** The check digit of the figures before it (GS1 General Specifications, 7.9). */
export function checkDigit(body: string): number {
  const sum = Array.from(body)
    .reverse()
    .reduce((all, figure, at) => all + Number(figure) * (at % 2 === 0 ? 3 : 1), 0);
  return (10 - (sum % 10)) % 10;
}

/** Whether this is a number of 8, 12, 13 or 14 figures, as GTINs are. */
export const looksLikeGtin = (text: string): boolean => /^(?:\d{8}|\d{12,14})$/.test(text);

/** Whether the last figure is the check digit of the others. */
export const hasRightCheckDigit = (text: string): boolean =>
  checkDigit(text.slice(0, -1)) === Number(text.at(-1));

/** What a label printed in the shop says: the item's own code, and its weight or its price. */
export interface InStoreLabel {
  /** Five figures: the code of the item. */
  readonly code: string;
  readonly carries: 'price' | 'measure';
  /** Minor units, or thousandths of the unit of measure. */
  readonly value: number;
}

/**
 * Reads a 13-figure number of the range that GS1 leaves to shops, prefixes 20 to 29: two figures of
 * prefix, five of the item's code, five of value, and the check digit. 20 to 24 carry a price, 25 to
 * 29 a weight or measure.
 * @returns Null for any other number.
 * @example readLabel('2512345003855') // => { code: '12345', carries: 'measure', value: 385 }
 */
export function readLabel(text: string): InStoreLabel | null {
  const match = /^2(\d)(\d{5})(\d{5})\d$/.exec(text);
  if (match === null || !hasRightCheckDigit(text)) return null;
  const [, kind = '', code = '', value = ''] = match;
  return { code, carries: Number(kind) < 5 ? 'price' : 'measure', value: Number(value) };
}

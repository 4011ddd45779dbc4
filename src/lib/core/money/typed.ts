/** Figures as people type them: a comma or a point is the decimal mark, blanks around them are nothing. */
import { quantityOf, type Thousandths } from './units';

/** With a point as the decimal mark, as all that reads decimal text expects it. */
export const withPoint = (typed: string): string => typed.trim().replace(',', '.');

/**
 * Reads a typed quantity; negative for goods that come back.
 * @returns Thousandths, or null where it is none.
 * @example readQuantity(' 0,385 ') // => 385
 */
export function readQuantity(typed: string): Thousandths | null {
  try {
    return quantityOf(withPoint(typed));
  } catch {
    return null;
  }
}

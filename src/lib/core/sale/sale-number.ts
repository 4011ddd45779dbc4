/** Numbers that people read out: the device's, and a count that is never used again. */

/** @example saleNumber(3, 17) // => 'D3-17' */
export const saleNumber = (device: number, count: number): string =>
  `D${String(device)}-${String(count)}`;

/** Whether it reads like the number of a sale, whatever its capitals. */
export const isSaleNumber = (typed: string): boolean => /^D\d+-\d+$/i.test(typed.trim());

/** Number of a drawer's final read. @example readNumber(3, 2) // => 'D3-R2' */
export const readNumber = (device: number, count: number): string =>
  `D${String(device)}-R${String(count)}`;

/** Number of a return. @example returnNumber(3, 4) // => 'D3-B4' */
export const returnNumber = (device: number, count: number): string =>
  `D${String(device)}-B${String(count)}`;

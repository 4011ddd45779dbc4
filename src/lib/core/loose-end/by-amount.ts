/** An amount in the name of a loose end: off by another one it is another loose end. */

/** @example byAmount(450) // => 'p450', and 'm450' for as much less */
export const byAmount = (amount: number): string =>
  `${amount < 0 ? 'm' : 'p'}${String(Math.abs(amount))}`;

/**
 * What random tests draw from. `npm test` draws the same every time, so that what passed once passes again;
 * `npm test -- long` draws anew, ten times as often, and prints the SEED that repeats it.
 */
export const SEED = Number(process.env['SEED'] ?? Date.now() % 2_000_000_000);

/** How many times as often as usual. */
export const TIMES = Number(process.env['TIMES'] ?? 1);

/**
 * Cells of CSV files that spreadsheets open. What begins like a formula would be worked out there, with
 * whatever it says; an apostrophe in front makes it text again (OWASP, "CSV injection"). Reading takes it
 * away, so that out and in again gives the same.
 */

const FORMULA = /^'*[=+\-@\t\r]/;

/** @example guarded('=1+1') // => "'=1+1" */
export const guarded = (text: string): string => (FORMULA.test(text) ? `'${text}` : text);

/** @example unguarded("'=1+1") // => '=1+1' */
export const unguarded = (text: string): string =>
  text.startsWith("'") && FORMULA.test(text) ? text.slice(1) : text;

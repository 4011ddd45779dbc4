/** What is noted of a cheque: its number and bank, as a reference; whose it is stands apart. */

/**
 * @param needsNumber Whether the way asks for one: the bank alone is none then.
 * @returns Such as `000123, Tarn Bank`; empty where there is nothing to note.
 */
export function chequeReference(number: string, bank: string, needsNumber: boolean): string {
  const [of, at] = [number.trim().slice(0, 30), bank.trim().slice(0, 48)];
  if (of === '' && needsNumber) return '';
  return [of, at].filter((part) => part !== '').join(', ');
}

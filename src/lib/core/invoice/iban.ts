/** Numbers of accounts as they stand on invoices. */

/** Without blanks, in capitals. */
export const ibanOf = (typed: string): string => typed.toUpperCase().replaceAll(/[\s-]/g, '');

/** Whether its figures check (ISO 13616, by ISO/IEC 7064 MOD 97-10). @param iban As `ibanOf` gives it. */
export function isIban(iban: string): boolean {
  if (!/^[A-Z]{2}\d{2}[A-Z0-9]{8,30}$/.test(iban)) return false;
  const turned = iban.slice(4) + iban.slice(0, 4);
  const figures = turned.replaceAll(/[A-Z]/g, (letter) => String(letter.charCodeAt(0) - 55));
  return BigInt(figures) % 97n === 1n;
}

/** In fours, as people read it. */
export const ibanText = (iban: string): string => iban.match(/.{1,4}/g)?.join(' ') ?? '';

/** With its rate, unless the vendor’s own name says it. @example taxName('VAT', '20') // => 'VAT, 20 %' */
export const taxName = (name: string, rate: string): string =>
  name.includes('%') ? name : `${name}, ${rate} %`;

/** What is used of the MT940 library, which has no types of its own. */
declare module 'mt940js' {
  export interface Mt940Line {
    readonly date: Date;
    readonly entryDate?: Date;
    /** Whole units of the currency; below nothing for a debit. */
    readonly amount: number;
    readonly reference: string;
    readonly bankReference?: string;
    readonly details?: string;
    readonly structuredDetails?: Readonly<Record<string, string>>;
  }
  export interface Mt940Statement {
    readonly accountIdentification: string;
    readonly number: { readonly statement: string; readonly sequence?: string };
    readonly currency: string;
    readonly openingBalance: number;
    readonly closingBalance: number;
    readonly transactions: readonly Mt940Line[];
  }
  export class Parser {
    /** @throws {Error} What is wrong with it. */
    parse(text: string): Mt940Statement[];
  }
}

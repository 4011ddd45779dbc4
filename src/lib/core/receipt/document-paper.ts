/** A document with lines (an invoice, a list of goods, a count), whatever it is set on. */
export interface DocumentPaper {
  readonly title: string;
  readonly number: string;
  /** Who it is from. */
  readonly head: string;
  /** What it is about, one under another: from, to, when. */
  readonly facts: readonly (readonly [label: string, value: string])[];
  readonly columns: readonly { readonly head: string; readonly isFigure: boolean }[];
  readonly rows: readonly (readonly string[])[];
  /** Under the rows, what they come to: the last is the one that counts. */
  readonly sums?: readonly (readonly [label: string, value: string])[];
  readonly foot: string;
}

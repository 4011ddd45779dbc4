/** An entry as the daybook has it: the text that arrived, and beside it the stamp that it is held to. */
import { entrySchema, type Entry } from '../../core/daybook/entry';

export interface StoredText {
  readonly entry: string;
  /** Empty where its own stamp counts. */
  readonly held: string;
}

/** @throws If the text is none of an entry: nothing was ever stored so. */
export function storedEntry({ entry, held }: StoredText): Entry {
  const stored = entrySchema.parse(JSON.parse(entry));
  return held === '' ? stored : { ...stored, held };
}

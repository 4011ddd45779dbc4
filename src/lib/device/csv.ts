/** CSV files (RFC 4180) as lines by heading. */
import Papa from 'papaparse';

/** The text of a file. Banks and acquirers often write Latin-1: what is no UTF-8 is read as that. */
export async function textOf(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

export interface CsvRead {
  readonly lines: readonly Readonly<Record<string, string>>[];
  /** What is wrong with the file as a whole; empty when nothing is. */
  readonly fault: string;
}

/**
 * Headings in small letters, blanks and dashes in them as underlines; lines that are empty are passed over.
 * @param needs Headings of which one must be there.
 */
export function readCsv(text: string, needs: readonly string[]): CsvRead {
  const { data, errors } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (heading) =>
      heading
        .trim()
        .toLowerCase()
        .replace(/[\s-]+/g, '_'),
  });
  const fault = (says: string): CsvRead => ({ lines: [], fault: says });
  const [first] = data;
  if (first === undefined) return fault('There is nothing in this file.');
  if (!needs.some((heading) => heading in first))
    return fault(
      `The first line must name the columns, and one of them must be ${needs.map((each) => `“${each}”`).join(' or ')}.`,
    );
  const [error] = errors.filter(({ type }) => type === 'Quotes');
  if (error !== undefined)
    return fault(
      `Line ${String((error.row ?? 0) + 2)}: quotation marks do not close (${error.message}).`,
    );
  return { lines: data, fault: '' };
}

/** Reads a file of items apart from the screen, so that it stays alive while 5,000 lines are read. */
import * as Comlink from 'comlink';
import Papa from 'papaparse';
import type { Row } from '../../core/books/tables';
import { readItems, type ItemsContext, type PlannedLine } from '../../core/formats/items-table';
import { newId } from '../new-id';

export interface FileRead {
  readonly lines: readonly PlannedLine[];
  /** What is wrong with the file as a whole; empty when nothing is. */
  readonly fault: string;
}

const api = {
  /** @param onProgress Called with lines done and lines there are. */
  read(
    text: string,
    items: readonly Row<'items'>[],
    context: ItemsContext,
    onProgress: (done: number, all: number) => void,
  ): FileRead {
    const { data, errors } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
      header: true,
      skipEmptyLines: 'greedy',
      transformHeader: (heading) =>
        heading
          .trim()
          .toLowerCase()
          .replace(/[\s-]+/g, '_'),
    });
    const [first] = data;
    if (first === undefined) return { lines: [], fault: 'There is nothing in this file.' };
    if (!('name' in first))
      return {
        lines: [],
        fault: 'The first line must name the columns, and one of them must be “name”.',
      };
    const [error] = errors.filter(({ type }) => type === 'Quotes');
    if (error !== undefined)
      return {
        lines: [],
        fault: `Line ${String((error.row ?? 0) + 2)}: quotation marks do not close (${error.message}).`,
      };
    const lines = readItems({
      newId,
      lines: data,
      items,
      context,
      onProgress: (done) => onProgress(done, data.length),
    });
    return { lines, fault: '' };
  },
};
export type ItemsWorker = typeof api;

Comlink.expose(api);

/** Reads a file of items apart from the screen, so that it stays alive while 5,000 lines are read. */
import * as Comlink from 'comlink';
import type { Row } from '../../core/books/tables';
import { readItems, type ItemsContext, type PlannedLine } from '../../core/formats/items-table';
import { readCsv } from '../csv';
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
    const { lines: data, fault } = readCsv(text, ['name']);
    if (fault !== '') return { lines: [], fault };
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

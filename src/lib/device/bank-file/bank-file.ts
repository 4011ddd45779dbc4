/** A bank's file: looked into apart from the screen, in no more than a while. */
import * as Comlink from 'comlink';
import { MOST_BYTES } from '../../core/bank/read-file';
import { textOf } from '../csv';
import type { BankFileRead, BankWorker } from './bank-worker';

/** Longer than any statement takes; what takes longer is none. */
const AT_MOST = 30_000;

/** @throws {Error} Why it cannot be read, in words. */
export async function readBankFile(file: Blob): Promise<BankFileRead> {
  if (file.size > MOST_BYTES)
    throw new Error(
      `This file has ${String(Math.round(file.size / 1_000_000))} MB, and a statement has at most ${String(MOST_BYTES / 1_000_000)}. Fetch it from the bank month by month.`,
    );
  if (file.size === 0) throw new Error('There is nothing in this file.');
  const text = await textOf(file);
  const worker = new Worker(new URL('./bank-worker.ts', import.meta.url), { type: 'module' });
  try {
    const tooLong = new Promise<never>((_, reject) => {
      setTimeout(
        () => reject(new Error('It takes too long to read this file; it is no bank statement.')),
        AT_MOST,
      );
      worker.onerror = () => reject(new Error('The file could not be read apart from the screen.'));
    });
    return await Promise.race([Comlink.wrap<BankWorker>(worker).read(text), tooLong]);
  } finally {
    worker.terminate();
  }
}

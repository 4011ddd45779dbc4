/**
 * One push of a business at a time, before it takes a connection: however much one business sends, the
 * others find connections free. Within this process; across processes the counter's lock does it.
 */

/** As many as wait patiently; more are sent away and come again. */
const MOST_WAITING = 30;

/** So many wait already that another one is better off trying later. */
export class TooBusyError extends Error {
  constructor() {
    super('too much is waiting for this business already');
    this.name = 'TooBusyError';
  }
}

const turns = new Map<string, { readonly last: Promise<unknown>; readonly waiting: number }>();

/** Runs `work` when all that was asked for the business before it is done. @throws {TooBusyError} */
export async function inTurn<T>(business: string, work: () => Promise<T>): Promise<T> {
  const before = turns.get(business);
  const waiting = before?.waiting ?? 0;
  if (waiting >= MOST_WAITING) throw new TooBusyError();
  const mine = (before?.last ?? Promise.resolve()).then(work, work);
  const settled = mine.catch(() => undefined);
  turns.set(business, { last: settled, waiting: waiting + 1 });
  try {
    return await mine;
  } finally {
    const now = turns.get(business);
    if (now !== undefined && now.waiting > 1)
      turns.set(business, { last: now.last, waiting: now.waiting - 1 });
    else turns.delete(business);
  }
}

/** Following what a query reads. */
import { liveQuery } from 'dexie';

/** Milliseconds until a query that failed is asked again, twice as long each time, up to the longest. */
const AGAIN = 250;
const LONGEST = 8000;

export interface Following {
  readonly unsubscribe: () => void;
}

/**
 * Tells what a query answers, and again whenever anything changed that it had read. Whatever the query is, it is asked
 * from within an `async` function: of one that only returns a promise, all that is read behind its first `await` would
 * not be followed. One that fails is asked again: a browser that closed the database for a moment, or broke a reading
 * off, would leave a screen without what it shows, and says nothing of it.
 * @param onFault Is told each time, before it is asked again.
 */
export function follow<T>(
  query: () => Promise<T> | T,
  next: (answer: T) => void,
  onFault: (error: unknown) => void = () => undefined,
): Following {
  let pause = AGAIN;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let isOver = false;
  let asking: Following;
  const again = (error: unknown): void => {
    if (isOver || timer !== undefined) return;
    onFault(error);
    timer = setTimeout(() => {
      timer = undefined;
      asking.unsubscribe();
      asking = ask();
    }, pause);
    pause = Math.min(LONGEST, pause * 2);
  };
  const ask = (): Following =>
    liveQuery(async () => {
      try {
        return await query();
      } catch (error) {
        again(error);
        throw error;
      }
    }).subscribe({
      next: (answer) => {
        clearTimeout(timer);
        [timer, pause] = [undefined, AGAIN];
        next(answer);
      },
      // It was told already.
      error: () => undefined,
    });
  asking = ask();
  return {
    unsubscribe: () => {
      isOver = true;
      clearTimeout(timer);
      asking.unsubscribe();
    },
  };
}

/** Following what a query reads. */
import { liveQuery, type Observable } from 'dexie';

/**
 * What a query answers, and again whenever anything changed that it had read. Whatever the query is, it is asked from
 * within an `async` function: of one that only returns a promise, all that is read behind its first `await` would not
 * be followed.
 */
export const follow = <T>(query: () => Promise<T> | T): Observable<T> =>
  liveQuery(async () => await query());

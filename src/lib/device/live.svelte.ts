/** Rows that follow the database, as Svelte state. */
import { follow } from './follow';
import { readings } from './readings';

export interface Live<T> {
  /** The rows as they are; `initial` until they were first read. */
  readonly value: T;
  /** Whether they have been read at all. */
  readonly isRead: boolean;
}

/**
 * Follows a query for as long as the component or effect it is called in lives.
 * @param prepare Reads whatever state the query depends on and returns the query itself: state
 *   read inside the query would not be followed.
 */
export function live<T>(prepare: () => () => Promise<T> | T, initial: T): Live<T> {
  let value = $state.raw(initial);
  let isRead = $state(false);
  let wasRead = (): void => undefined;
  // In an effect, so that one that is gone again before it began is not waited for.
  $effect(() => {
    wasRead = readings.begin();
    return wasRead;
  });
  $effect(() => {
    const query = prepare();
    const following = follow(
      query,
      (rows) => {
        value = rows;
        isRead = true;
        wasRead();
      },
      (error) => console.error('reading the device failed, and is tried again', error),
    );
    return following.unsubscribe;
  });
  return {
    get value() {
      return value;
    },
    get isRead() {
      return isRead;
    },
  };
}

/** What the server is asked for a screen, as Svelte state. */
import { readings } from './readings';

export interface Question<T> {
  /** What it is about: of another, what was answered before says nothing. */
  readonly of: string;
  readonly ask: () => Promise<T>;
  /** Milliseconds in which nothing changes before it is asked. The screen does not wait for such a one. */
  readonly after?: number;
}

/**
 * Asks for as long as the component or effect it is called in lives. The screen is whole once it is answered, as it is
 * once its rows were read.
 * @param prepare Reads whatever state the question depends on and returns it, or null where there is nothing to ask;
 *   asked again whenever that state changes.
 * @param initial Until it is answered.
 */
export function asked<T>(prepare: () => Question<T> | null, initial: T): { readonly value: T } {
  let value = $state.raw(initial);
  let about: string | null = null;
  $effect(() => {
    const question = prepare();
    if (about !== null && question?.of !== about) value = initial;
    if (question === null) {
      about = null;
      return;
    }
    const isFirst = question.of !== about;
    about = question.of;
    let isOld = false;
    const { ask, after } = question;
    const wasRead = isFirst && after === undefined ? readings.begin() : () => undefined;
    const answered = (): void =>
      void ask().then((answer) => {
        if (!isOld) value = answer;
        wasRead();
      });
    const timer = after === undefined ? undefined : setTimeout(answered, after);
    if (after === undefined) answered();
    return () => {
      isOld = true;
      clearTimeout(timer);
      wasRead();
    };
  });
  return {
    get value() {
      return value;
    },
  };
}

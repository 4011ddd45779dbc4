/** What was typed into a form and not kept yet: leaving the page loses nothing of it. */

const keyOf = (form: string): string => `stall-till-typed ${form}`;

interface Kept<T> {
  /** What the form began from: the stamp of its record, so that a newer one is not overwritten. */
  readonly from: string;
  readonly typed: T;
}

/** What is left of a form, unless what it is about has been changed since; else how it begins. */
export function draftOr<T>(form: string, from: string, begin: T): T {
  try {
    const kept = JSON.parse(sessionStorage.getItem(keyOf(form)) ?? 'null') as Kept<T> | null;
    return kept?.from === from ? kept.typed : begin;
  } catch {
    return begin;
  }
}

/**
 * Keeps what is typed from now on, whenever it changes. To be called while a component is made.
 * @param typed A snapshot of what the form holds.
 */
export function keepDraft(form: string, from: string, typed: () => unknown): void {
  let before = JSON.stringify(typed());
  $effect(() => {
    const now = JSON.stringify(typed());
    if (now === before) return;
    before = now;
    sessionStorage.setItem(keyOf(form), `{"from":${JSON.stringify(from)},"typed":${now}}`);
  });
}

export const dropDraft = (form: string): void => sessionStorage.removeItem(keyOf(form));

/** What was typed into an item's form and not kept yet: leaving the page loses nothing of it. */
import type { TypedItem } from '$lib/core/goods/set-item';

const KEY = 'stall-till-item';

interface Kept {
  readonly id: string;
  /** What the form began from: a stamp, or the barcode of something new. */
  readonly from: string;
  readonly typed: TypedItem;
}

/** What is left of an item's form, unless the item has been changed since. */
export function draftOf(id: string, from: string): TypedItem | null {
  try {
    const kept = JSON.parse(sessionStorage.getItem(KEY) ?? 'null') as Kept | null;
    return kept?.id === id && kept.from === from ? kept.typed : null;
  } catch {
    return null;
  }
}

export const keepDraft = (id: string, from: string, typed: TypedItem): void =>
  sessionStorage.setItem(KEY, JSON.stringify({ id, from, typed } satisfies Kept));

export const dropDraft = (): void => sessionStorage.removeItem(KEY);

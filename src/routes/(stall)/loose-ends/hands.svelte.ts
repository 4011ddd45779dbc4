/** Who was asked to look after which loose end, as far as the server has said; whose of them are to be seen. */
import { getContext, setContext } from 'svelte';
import type { Hand } from '$lib/core/settle/event-loose-ends';

export class Hands {
  all = $state.raw<readonly Hand[]>([]);
  /** Only what this person looks after is shown; empty for everything. */
  person = $state('');

  of = (looseEnd: string): Hand | undefined => this.all.find((each) => each.looseEnd === looseEnd);

  isShown = (looseEnd: string): boolean =>
    this.person === '' || this.of(looseEnd)?.to === this.person;
}

const KEY = Symbol('hands');
export const keepHands = (): Hands => setContext(KEY, new Hands());
/** Pages that show a loose end of one event have no such list. */
export const useHands = (): Hands | undefined => getContext<Hands | undefined>(KEY);

/**
 * A form of the stall, the one way in which what is typed becomes entries: what is typed outlives leaving the
 * page, what is refused is said beside its field, and what is saved is on the disk before it is said.
 */
import { toast } from 'svelte-sonner';
import type { Draft } from '$lib/core/daybook/chain';
import { Faults, type Fault } from '$lib/ui/forms/faults.svelte';
import { faultWords } from '$lib/ui/words/fault-words';
import { draftOr, dropDraft, keepDraft } from '$lib/ui/forms/typed-draft.svelte';
import { useStall } from '../stall.svelte';
import { stillHere } from '../still-here';

/** A command of the core: what it drafts, or why not. */
export type Command<R> = () =>
  | { readonly ok: true; readonly drafts: readonly Draft[]; readonly id?: string }
  | { readonly ok: false; readonly refusal: R };

interface Makes<T, R> {
  /** What it is about, for what is typed and not saved: `tax new`. */
  readonly about: string;
  /** The stamp of what it begins from, so that what was set meanwhile is not overwritten. */
  readonly from: string;
  readonly begin: T;
  /** What to write, worked out from what is typed; a promise where something is looked up first. */
  readonly command: (typed: T) => Command<R> | Promise<Command<R>>;
  readonly says: (refusal: R) => Fault;
  /** What is said once it is saved. */
  readonly saved: (typed: T) => string;
  /** Where to then, for who is still there; with the id of what was made, where the command says it. */
  readonly then?: ((id: string) => unknown) | undefined;
}

type Outcome<R> = ReturnType<Command<R>> | { readonly ok: false; readonly refusal: unknown };
const isOutcome = <R>(given: unknown): given is Outcome<R> =>
  typeof given === 'object' && given !== null && 'ok' in given;

export class StallForm<T extends object, R> {
  typed: T;
  readonly faults = new Faults();
  readonly #makes: Makes<T, R>;
  readonly #stall = useStall();
  #isBusy = $state(false);

  /** To be made while a component is. */
  constructor(makes: Makes<T, R>) {
    this.#makes = makes;
    const { about, from, begin } = makes;
    this.typed = $state(draftOr(about, from, begin));
    keepDraft(about, from, () => $state.snapshot(this.typed));
  }

  get isBusy(): boolean {
    return this.#isBusy;
  }

  /** @param lentBy Who lent the right to it, if somebody did. */
  async save(lentBy?: string): Promise<void> {
    if (this.#isBusy) return;
    this.#isBusy = true;
    try {
      await this.#save(lentBy);
    } finally {
      this.#isBusy = false;
    }
  }

  async #save(lentBy: string | undefined): Promise<void> {
    const { about, command, says, saved, then } = this.#makes;
    const { daybook } = this.#stall;
    const isHere = stillHere();
    // As a draft of it is kept: text, and nothing that still changes.
    const said = JSON.parse(JSON.stringify(this.typed)) as T;
    this.faults.now = null;
    // What it looks up is looked up again if something else was written meanwhile, here or in another window.
    const outcome = await daybook
      .decide(
        async () => await command(said),
        (write) => write(),
        lentBy === undefined ? {} : { lentBy },
      )
      .catch((error: unknown) => error);
    if (!isOutcome(outcome)) {
      this.faults.now = { field: '', says: `It is not saved: ${faultWords(outcome)}.` };
      return;
    }
    if (!outcome.ok) {
      // A form is about no slip, so that none can be gone.
      this.faults.now = says(outcome.refusal as R);
      return;
    }
    dropDraft(about);
    await daybook.settle();
    toast(saved(said));
    // Whoever has gone elsewhere meanwhile stays there.
    if (isHere()) await then?.(outcome.id ?? '');
  }
}

/**
 * What was found, in two parts: the first are painted with the key, the rest a moment later. Until then the rest of
 * what was found before stays where it is, unseen: taking it down would hold up the first.
 */
export class Later<T> {
  static readonly atOnce = 5;
  readonly first: readonly T[] = $derived.by(() => this.all().slice(0, Later.atOnce));
  readonly rest: readonly T[] = $derived.by(() => {
    if (!this.isBehind()) this.#last = this.all().slice(Later.atOnce);
    return this.#last;
  });
  #last: readonly T[] = [];

  /** @param isBehind While the first of something else are being painted. */
  constructor(
    readonly all: () => readonly T[],
    readonly isBehind: () => boolean,
  ) {}
}

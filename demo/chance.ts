/** Chance that always falls the same way, so that the demo is the same everywhere. */
export class Chance {
  #state: number;

  constructor(seed: number) {
    this.#state = seed >>> 0;
  }

  /** From 0 up to but not 1 (mulberry32). */
  next(): number {
    this.#state = (this.#state + 0x6d2b79f5) >>> 0;
    let t = this.#state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  }

  /** A whole number from `low` to `high`, both included. */
  between(low: number, high: number): number {
    return low + Math.floor(this.next() * (high - low + 1));
  }

  /** One of the choices, each as likely as its weight is large. @throws {RangeError} If none has any. */
  weighted<T>(choices: readonly T[], weight: (choice: T) => number): T {
    const all = choices.reduce((sum, choice) => sum + weight(choice), 0);
    let at = this.next() * all;
    for (const choice of choices) {
      at -= weight(choice);
      if (at < 0) return choice;
    }
    throw new RangeError('nothing to choose from');
  }
}

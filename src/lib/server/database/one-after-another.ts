/**
 * Statements of one transaction that go to the database one after another, while what comes next is worked out.
 *
 * Each waits until the one before it is done: a transaction that has failed is undone, and what was on its way by
 * then would stand by itself.
 */
export class OneAfterAnother {
  #last: Promise<void> = Promise.resolve();

  /** @param work Not begun if what was added before it fails. */
  add(work: () => Promise<void>): void {
    this.#last = this.#last.then(work);
    // It is heard of at the end.
    this.#last.catch(() => undefined);
  }

  /** Waits until all is done. @throws What the first of them threw that failed. */
  async end(): Promise<void> {
    await this.#last;
  }
}

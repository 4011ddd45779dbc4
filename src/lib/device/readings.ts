/** What a screen follows and has not read yet: until all of it has been, the screen is not whole. */
export class Readings {
  #unread = 0;
  readonly #waiting: (() => void)[] = [];

  /** One more is on its way. @returns What is called once it was read, or nobody waits for it any more. */
  begin(): () => void {
    let isOver = false;
    this.#unread += 1;
    return () => {
      if (isOver) return;
      isOver = true;
      this.#unread -= 1;
      if (this.#unread === 0) for (const goOn of this.#waiting.splice(0)) goOn();
    };
  }

  /**
   * Ends when nothing is left to be read, nor is begun by what was.
   * @param taken Ends once the screen has taken up what was read so far.
   */
  async allRead(taken: () => Promise<void>): Promise<void> {
    for (;;) {
      await taken();
      if (this.#unread === 0) return;
      await new Promise<void>((resolve) => this.#waiting.push(resolve));
    }
  }
}

export const readings = new Readings();

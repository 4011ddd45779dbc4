/** A long list of things too large for a table: the first stand there, more as the end of them comes near. */
const AT_ONCE = 40;

export class Growing {
  #grown = $state(AT_ONCE);

  /** @param all How many there are. */
  constructor(readonly all: () => number) {}

  /** How many stand there. */
  get many(): number {
    return Math.min(this.#grown, this.all());
  }

  /** On what stands behind the last of them. */
  readonly atEnd = (element: Element): (() => void) => {
    const observer = new IntersectionObserver(
      (entries) => {
        if (entries.some(({ isIntersecting }) => isIntersecting)) this.#grow(observer, element);
      },
      { rootMargin: '600px' },
    );
    observer.observe(element);
    return () => observer.disconnect();
  };

  #grow(observer: IntersectionObserver, element: Element): void {
    this.#grown += AT_ONCE;
    // Told anew, should the end still be near.
    observer.unobserve(element);
    observer.observe(element);
  }
}

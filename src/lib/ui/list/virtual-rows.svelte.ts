/** Which rows of a long list are on the screen: the others are only as high as they would be. */
import {
  elementScroll,
  observeElementOffset,
  observeElementRect,
  Virtualizer,
  type VirtualItem,
} from '@tanstack/virtual-core';
import { untrack } from 'svelte';

const ABOVE_AND_BELOW = 8;

/** Pixels above the rows that are there, those rows by their index, and pixels below them. */
export interface Window {
  readonly above: number;
  readonly rows: readonly VirtualItem[];
  readonly below: number;
}

export class VirtualRows {
  #scroller = $state<HTMLElement>();
  #virtualizer: Virtualizer<HTMLElement, HTMLElement> | null = null;
  #window = $state.raw<Window>({ above: 0, rows: [], below: 0 });

  /**
   * To be made while a component is.
   * @param count How many rows there are. @param height Pixels of each, about: they are measured.
   */
  constructor(count: () => number, height: number) {
    $effect(() => {
      const scroller = this.#scroller;
      if (scroller === undefined) return;
      const virtualizer = new Virtualizer<HTMLElement, HTMLElement>({
        count: untrack(count),
        getScrollElement: () => scroller,
        estimateSize: () => height,
        overscan: ABOVE_AND_BELOW,
        observeElementRect,
        observeElementOffset,
        scrollToFn: elementScroll,
        onChange: (now) => this.#take(now),
      });
      this.#virtualizer = virtualizer;
      const unmount = virtualizer._didMount();
      virtualizer._willUpdate();
      this.#take(virtualizer);
      return unmount;
    });
    // Other rows are no other list: where it stands, and how high rows are, is known.
    $effect(() => {
      const many = count();
      const virtualizer = this.#virtualizer;
      if (virtualizer === null || virtualizer.options.count === many) return;
      virtualizer.setOptions({ ...virtualizer.options, count: many });
      virtualizer._willUpdate();
      this.#take(virtualizer);
    });
  }

  set scroller(element: HTMLElement | undefined) {
    this.#scroller = element;
  }
  get scroller(): HTMLElement | undefined {
    return this.#scroller;
  }
  get window(): Window {
    return this.#window;
  }

  /** Measures a row that is on the screen; its `data-index` says which it is. */
  readonly measure = (row: HTMLElement): (() => void) => {
    this.#virtualizer?.measureElement(row);
    return () => this.#virtualizer?.measureElement(null);
  };

  #take(now: Virtualizer<HTMLElement, HTMLElement>): void {
    const rows = now.getVirtualItems();
    const [first, last] = [rows[0], rows.at(-1)];
    this.#window = {
      above: first?.start ?? 0,
      rows,
      below: now.getTotalSize() - (last?.end ?? 0),
    };
  }
}

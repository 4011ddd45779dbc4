/** The theme and the hand; of this browser alone. static/theme.js sets them before the first paint. */
export type Theme = 'daylight' | 'full-sun' | 'night';
export type Hand = 'right' | 'left';

export const THEMES: readonly { readonly id: Theme; readonly name: string }[] = [
  { id: 'daylight', name: 'Daylight' },
  { id: 'full-sun', name: 'Full sun' },
  { id: 'night', name: 'Night' },
];

export const HANDS: readonly { readonly id: Hand; readonly name: string }[] = [
  { id: 'right', name: 'Right-handed' },
  { id: 'left', name: 'Left-handed' },
];

class Looks {
  #theme = $state<Theme>('daylight');
  #hand = $state<Hand>('right');

  constructor() {
    if (typeof document === 'undefined') return;
    const { theme, hand } = document.documentElement.dataset;
    this.#theme = THEMES.find(({ id }) => id === theme)?.id ?? 'daylight';
    this.#hand = hand === 'left' ? 'left' : 'right';
  }

  get theme(): Theme {
    return this.#theme;
  }
  set theme(chosen: Theme) {
    this.#theme = chosen;
    keep('theme', chosen);
  }
  get hand(): Hand {
    return this.#hand;
  }
  set hand(chosen: Hand) {
    this.#hand = chosen;
    keep('hand', chosen);
  }

  /** Goes on to the next theme, round and round. */
  nextTheme(): void {
    const at = THEMES.findIndex(({ id }) => id === this.#theme);
    this.theme = THEMES[(at + 1) % THEMES.length]?.id ?? 'daylight';
  }
}

function keep(name: string, value: string): void {
  document.documentElement.dataset[name] = value;
  localStorage.setItem(name, value);
}

export const looks = new Looks();

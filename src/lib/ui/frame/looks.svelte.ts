/** The theme, the hand and how the customer's page is turned; of this browser alone. static/theme.js sets them before the first paint. */
export type Theme = 'daylight' | 'full-sun' | 'night';
export type Hand = 'right' | 'left';
/** How the customer's page stands: as such a screen is usually held, or always one way. */
export type Turn = 'usual' | 'round' | 'upright';

export const THEMES: readonly { readonly id: Theme; readonly name: string }[] = [
  { id: 'daylight', name: 'Daylight' },
  { id: 'full-sun', name: 'Full sun' },
  { id: 'night', name: 'Night' },
];

export const HANDS: readonly { readonly id: Hand; readonly name: string }[] = [
  { id: 'right', name: 'Right-handed' },
  { id: 'left', name: 'Left-handed' },
];

export const TURNS: readonly { readonly id: Turn; readonly name: string }[] = [
  { id: 'usual', name: 'As usual for this screen' },
  { id: 'round', name: 'Turned round' },
  { id: 'upright', name: 'Not turned' },
];

class Looks {
  #theme = $state<Theme>('daylight');
  #hand = $state<Hand>('right');
  #turn = $state<Turn>('usual');

  constructor() {
    if (typeof document === 'undefined') return;
    const { theme, hand } = document.documentElement.dataset;
    this.#theme = THEMES.find(({ id }) => id === theme)?.id ?? 'daylight';
    this.#hand = hand === 'left' ? 'left' : 'right';
    this.#turn = TURNS.find(({ id }) => id === localStorage.getItem('turn'))?.id ?? 'usual';
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

  get turn(): Turn {
    return this.#turn;
  }
  set turn(chosen: Turn) {
    this.#turn = chosen;
    localStorage.setItem('turn', chosen);
  }
  /** Whether the customer’s page is upside down for the seller: a phone is held out across the counter. */
  get isTurned(): boolean {
    if (this.#turn !== 'usual') return this.#turn === 'round';
    return matchMedia('(max-width: 767px)').matches;
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

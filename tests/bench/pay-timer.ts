/** Runs in the counter's own page: pays slips in one part and in three, and times what is waited for. */
export interface PayTimes {
  /** Milliseconds waited for in all, from the first tap to the counter being ready again. */
  readonly waits: number[];
  /** Taps on buttons; what is typed comes on top. */
  readonly taps: number;
}

const ROUNDS = 30;

const find = (selector: string): HTMLElement | null => document.querySelector(selector);
const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 60));

/** Looks once a frame, and answers after the frame in which it was so has been painted. */
const until = (isSo: () => boolean): Promise<void> =>
  new Promise((resolve) => {
    const look = (): void => {
      if (!isSo()) return void requestAnimationFrame(look);
      requestAnimationFrame(() => {
        setTimeout(resolve);
      });
    };
    look();
  });

class Round {
  waited = 0;
  taps = 0;

  /** Taps, and waits until that has shown. */
  async tap(selector: string, isSo: () => boolean): Promise<void> {
    await until(() => isTappable(selector));
    await pause();
    const from = performance.now();
    find(selector)?.click();
    await until(isSo);
    this.waited += performance.now() - from;
    this.taps += 1;
  }
}
const isTappable = (selector: string): boolean =>
  document.querySelector<HTMLButtonElement>(selector)?.disabled === false;

const left = (): string => find('[data-testid=left-to-pay]')?.textContent ?? '';
const isPaying = (): boolean => left() !== '';
const isReady = (): boolean => !isPaying() && find('[data-testid=goods] button') !== null;
const FIELD = '[data-way=cash] form input';

/** A part in cash of so much, typed. */
async function part(round: Round, amount: string): Promise<void> {
  if (find(FIELD) === null) await round.tap('[data-way=cash] button', () => find(FIELD) !== null);
  const field = document.querySelector<HTMLInputElement>(FIELD)!;
  field.value = amount;
  field.dispatchEvent(new InputEvent('input', { bubbles: true }));
  const before = left();
  await round.tap('[data-way=cash] form button', () => left() !== before);
}

async function pay(parts: number): Promise<Round> {
  for (let n = 0; n < 3; n += 1) {
    document.querySelectorAll<HTMLElement>('[data-testid=goods] button')[n]!.click();
    await pause();
  }
  const round = new Round();
  await round.tap('button:has([data-testid=to-pay])', isPaying);
  for (let n = 1; n < parts; n += 1) await part(round, '0.50');
  await round.tap('[aria-label=Cash] button', isReady);
  return round;
}

async function timePayments(parts: number): Promise<PayTimes> {
  const waits: number[] = [];
  let taps = 0;
  for (let n = 0; n < ROUNDS; n += 1) {
    const round = await pay(parts);
    if (n >= 3) waits.push(round.waited);
    taps = round.taps;
  }
  return { waits, taps };
}

Object.assign(window, { timePayments });

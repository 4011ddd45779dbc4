/** Runs in the counter's own page: taps tags, and makes trivial updates of the same page, in turn. */
export interface TapTimes {
  readonly taps: number[];
  readonly trivial: number[];
}

const ROUNDS = 100;

/** Resolves once the next frame has been painted. */
const painted = (): Promise<void> =>
  new Promise((resolve) => {
    requestAnimationFrame(() => {
      const { port1, port2 } = new MessageChannel();
      port1.onmessage = () => resolve();
      port2.postMessage(null);
    });
  });

async function timed(act: () => void): Promise<number> {
  // Not in step with the frames: a finger is not either.
  await new Promise((resolve) => setTimeout(resolve, 110 + 20 * Math.random()));
  const from = performance.now();
  // Asked for first: what the page does once its own frame is painted, such as writing, is not a part of that frame.
  const shown = painted();
  act();
  await shown;
  return performance.now() - from;
}

async function timeTaps(): Promise<TapTimes> {
  const tags = [...document.querySelectorAll<HTMLElement>('[data-testid=goods] button')];
  const name = tags[0]!.querySelector('b')!;
  const times: TapTimes = { taps: [], trivial: [] };
  for (let n = 0; n < ROUNDS; n += 1) {
    times.trivial.push(await timed(() => (name.textContent = `Aster ${String(n)}`)));
    times.taps.push(await timed(() => tags[n % 12]!.click()));
  }
  return times;
}

/** Types words into the entry line, key by key. */
async function timeKeys(): Promise<TapTimes> {
  const name = document.querySelector('[data-testid=goods] button b')!;
  const field = document.querySelector<HTMLInputElement>('input[aria-describedby=understood]')!;
  const type = (text: string): void => {
    field.value = text;
    field.dispatchEvent(new InputEvent('input', { bubbles: true }));
  };
  const times: TapTimes = { taps: [], trivial: [] };
  for (const word of ['crocus 12', 'dahlia', '3 basil', 'erica 499', 'c4711', 'aster']) {
    for (let end = 1; end <= word.length; end += 1) {
      times.trivial.push(await timed(() => (name.textContent = `Aster ${String(end)}`)));
      times.taps.push(await timed(() => type(word.slice(0, end))));
    }
    await timed(() => type(''));
  }
  return times;
}

/** Types words into a field, key by key; trivial is another heading. */
async function timeTyping(selector: string, words: readonly string[]): Promise<TapTimes> {
  const name = document.querySelector('h1')!;
  const field = document.querySelector<HTMLInputElement>(selector)!;
  const type = (text: string): void => {
    field.value = text;
    field.dispatchEvent(new InputEvent('input', { bubbles: true }));
  };
  const times: TapTimes = { taps: [], trivial: [] };
  for (const word of words) {
    for (let end = 1; end <= word.length; end += 1) {
      times.trivial.push(await timed(() => (name.textContent = `Page ${String(end)}`)));
      times.taps.push(await timed(() => type(word.slice(0, end))));
    }
    await timed(() => type(''));
  }
  return times;
}

/** What is looked for, into the field of Find. */
const timeFind = (): Promise<TapTimes> =>
  timeTyping('input[aria-describedby=find-by]', ['crocus 12', 'dahlia', 'b1-42', '13.37', 'zebra']);

/** Into the field above a long table. */
const timeFilter = (): Promise<TapTimes> =>
  timeTyping('input[type=search]', ['crocus 12', 'dahlia', 'c4711', 'erica 499', 'zebra']);

/** Scans goods of a list, one after another, until the crate of each shows one more. */
async function timeScans(): Promise<TapTimes> {
  const heading = document.querySelector('h1')!;
  const field = document.querySelector<HTMLInputElement>('form input[placeholder^=Scan]')!;
  const times: TapTimes = { taps: [], trivial: [] };
  for (let n = 0; n < 40; n += 1) {
    const crate = [...document.querySelectorAll<HTMLElement>('[data-crate]')][n % 8]!;
    const done = crate.querySelector('[data-testid=crate-done]')!;
    times.trivial.push(await timed(() => (heading.textContent = `List ${String(n)}`)));
    // A scanner types the code and then the key; what the code means is on the screen by then.
    field.value = `C${/\d+/.exec(crate.dataset['crate'] ?? '')![0]}`;
    field.dispatchEvent(new InputEvent('input', { bubbles: true }));
    await painted();
    await new Promise((resolve) => setTimeout(resolve, 110 + 20 * Math.random()));
    const [before, from] = [done.textContent, performance.now()];
    let shown = painted();
    field.form!.requestSubmit();
    await shown;
    while (done.textContent === before) {
      shown = painted();
      await shown;
    }
    times.taps.push(performance.now() - from);
    // Whatever follows of it must not stand in the way of the next.
    await new Promise((resolve) => setTimeout(resolve, 1500));
  }
  return times;
}

const there = async (look: () => HTMLElement | null | undefined): Promise<HTMLElement> => {
  for (;;) {
    const found = look();
    if (found != null) return found;
    await new Promise((resolve) => requestAnimationFrame(resolve));
  }
};

/** From the tap on a sale that was found until a quantity that comes back can be typed; one and the other in turn. */
async function timeOpen([short, long]: readonly [string, string]): Promise<TapTimes> {
  const times: TapTimes = { taps: [], trivial: [] };
  for (let n = -2; n < 12; n += 1) {
    for (const [id, into] of [
      [short, times.trivial],
      [long, times.taps],
    ] as const) {
      const link = await there(() => document.querySelector<HTMLElement>(`a[href="/sales/${id}"]`));
      await new Promise((resolve) => setTimeout(resolve, 300));
      const from = performance.now();
      link.click();
      const open = await there(() =>
        [...document.querySelectorAll<HTMLElement>('main button')].find((each) =>
          each.textContent.startsWith('Take goods back'),
        ),
      );
      open.click();
      await there(() => document.querySelector<HTMLElement>('main input[placeholder="0"]'));
      await painted();
      if (n >= 0) into.push(performance.now() - from);
      history.back();
    }
  }
  return times;
}

Object.assign(window, { timeTaps, timeKeys, timeFind, timeOpen, timeScans, timeFilter });

// A page of which a part was lost on its way over the network: it is loaded again once the server answers. Until the
// application has begun it is this script that sees to it, and says what is waited for, since there is nothing else on the
// page; later a page that did not come asks for it (`part-lost`).
(() => {
  const KEY = 'loaded-again';
  /** Milliseconds after which it is another loss and not the same once more. */
  const LONG_AGO = 120_000;
  const [PAUSE, LONGEST] = [1000, 60_000];
  /** Milliseconds without an answer, and until somebody is told what takes so long. */
  const [PATIENCE, SLOW] = [10_000, 8000];
  let isAsking = false;

  const pause = (millis) => new Promise((resolve) => setTimeout(resolve, millis));
  const hasBegun = () => document.documentElement.dataset.begun !== undefined;

  /** The longer the more often it was in vain: what is lost each time is not there. */
  function howLong() {
    try {
      const [before, last] = (sessionStorage.getItem(KEY) ?? '0 0').split(' ').map(Number);
      const times = Date.now() - last < LONG_AGO ? before : 0;
      sessionStorage.setItem(KEY, `${times + 1} ${Date.now()}`);
      return Math.min(LONGEST, PAUSE * 2 ** times);
    } catch {
      return LONGEST;
    }
  }

  async function isThere() {
    const giveUp = new AbortController();
    const timer = setTimeout(() => giveUp.abort(), PATIENCE);
    try {
      await fetch('/healthz', { cache: 'no-store', signal: giveUp.signal });
      return true;
    } catch {
      return false;
    } finally {
      clearTimeout(timer);
    }
  }

  /** It is gone when the application begins (hooks.client.ts). */
  function say(what) {
    if (hasBegun() || !document.body) return;
    const said = document.getElementById('on-its-way') ?? document.createElement('p');
    said.id = 'on-its-way';
    said.setAttribute('role', 'status');
    said.style.cssText =
      'max-width: 36rem; margin: 2rem auto; padding: 0 2rem; font: 1.2rem sans-serif';
    said.textContent = what;
    document.body.prepend(said);
  }

  /** @param isNeeded Whether it still is once the server answers. */
  async function loadAgain(isNeeded = () => true) {
    if (isAsking) return;
    isAsking = true;
    say(
      'Waiting for the network: a part of the till was lost on its way. It is asked for again by itself.',
    );
    await pause(howLong());
    while (!(await isThere())) await pause(PAUSE);
    if (isNeeded()) location.reload();
    isAsking = false;
  }

  addEventListener('part-lost', () => void loadAgain());
  addEventListener('unhandledrejection', ({ reason }) => {
    // A script that does not come rejects so, and nothing begins; one that this browser cannot read does not.
    if (!hasBegun() && reason instanceof TypeError) void loadAgain(() => !hasBegun());
  });
  addEventListener(
    'error',
    ({ target }) => {
      const isPart =
        target instanceof HTMLScriptElement ||
        (target instanceof HTMLLinkElement && target.rel === 'stylesheet');
      if (isPart && !hasBegun()) void loadAgain();
    },
    true,
  );
  setTimeout(() => {
    if (!isAsking)
      say('The till is on its way over the network. Once all of it is here it needs none.');
  }, SLOW);
})();

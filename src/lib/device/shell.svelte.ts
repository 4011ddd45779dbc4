/** The service worker that keeps the application on the device, and its updates. */
const JUST_UPDATED = 'just-updated';
const LOOK_EVERY = 30 * 60 * 1000;
/** When not all parts came, the others are asked for again so soon. */
const AGAIN = 20_000;
const NOTHING = { installing: null, waiting: null, active: null };

export class Shell {
  /** A new version is on the device and waits until it may take over. */
  isNewWaiting = $state(false);
  hasJustUpdated = $state(false);
  /** Whether this page can be opened again with no network: its parts are on the device, and it is looked after. */
  isHere = $state('serviceWorker' in navigator && navigator.serviceWorker.controller !== null);
  #registration: ServiceWorkerRegistration | undefined;
  #isTakingOver = false;

  constructor() {
    $effect(() => {
      if (!('serviceWorker' in navigator)) return;
      if (sessionStorage.getItem(JUST_UPDATED) !== null) {
        sessionStorage.removeItem(JUST_UPDATED);
        this.hasJustUpdated = true;
      }
      void this.#register();
      const timer = setInterval(
        () => void this.#registration?.update().catch(() => undefined),
        LOOK_EVERY,
      );
      const again = setInterval(() => {
        const { installing, waiting, active } = this.#registration ?? NOTHING;
        if ((installing ?? waiting ?? active) === null) void this.#register();
      }, AGAIN);
      const changed = (): void => {
        this.isHere = navigator.serviceWorker.controller !== null;
        if (!this.#isTakingOver) return;
        sessionStorage.setItem(JUST_UPDATED, 'yes');
        location.reload();
      };
      navigator.serviceWorker.addEventListener('controllerchange', changed);
      return () => {
        clearInterval(timer);
        clearInterval(again);
        navigator.serviceWorker.removeEventListener('controllerchange', changed);
      };
    });
  }

  /** Lets the waiting version take over and loads it. Only between sales. */
  takeOver(): void {
    if (this.#isTakingOver) return;
    this.#isTakingOver = true;
    this.#registration?.waiting?.postMessage('take over');
  }

  async #register(): Promise<void> {
    try {
      const registration = await navigator.serviceWorker.register('/service-worker.js', {
        type: import.meta.env.DEV ? 'module' : 'classic',
      });
      this.#registration = registration;
      const look = (): void => {
        this.isNewWaiting =
          registration.waiting !== null && navigator.serviceWorker.controller !== null;
      };
      const followInstall = (): void => {
        registration.installing?.addEventListener('statechange', look);
      };
      look();
      followInstall();
      registration.addEventListener('updatefound', followInstall);
      // A page that was on its way when the worker took its clients, or was reloaded past it, is
      // nobody's: without this it could not be opened again with no network.
      const { active } = await navigator.serviceWorker.ready;
      if (navigator.serviceWorker.controller === null) active?.postMessage('look after me');
    } catch {
      // Without a secure address there is no service worker; selling goes on while the page is open.
    }
  }
}

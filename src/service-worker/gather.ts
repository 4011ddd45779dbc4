/**
 * Gets all parts of one version onto the device, over a network that loses some of them: what has come stays, what is
 * lost is asked for again, and what an older version had under the same name is not fetched a second time.
 */

/** Under these names nothing ever changes: they hold a digest of what they name. */
const UNCHANGING = '/_app/immutable/';
/** How many are asked for at a time. */
const AT_ONCE = 6;
/** How often one is asked for, and milliseconds before the second time. */
const TRIES = 4;
const PAUSE = 1000;

/** As much of a `Cache` as is needed. */
interface Parts {
  put: (address: string, part: Response) => Promise<void>;
}

export interface Gathering {
  /** Paths. */
  readonly parts: readonly string[];
  readonly cache: Parts & { keys: () => Promise<readonly Request[]> };
  /** Whatever an earlier version left. */
  readonly older: { match: (address: string) => Promise<Response | undefined> };
  readonly fetching: (request: Request) => Promise<Response>;
  /** Where the parts are. @example 'https://till.example' */
  readonly origin: string;
  readonly pause?: (millis: number) => Promise<void>;
}

/** @throws {Error} If a part does not come; all that did is kept for the next time. */
export async function gather(gathering: Gathering): Promise<void> {
  const { parts, cache, origin } = gathering;
  const there = new Set((await cache.keys()).map(({ url }) => new URL(url).pathname));
  const missing = parts.filter((part) => !there.has(new URL(part, origin).pathname));
  // Pages first: should another version be put in place meanwhile, its own parts are not found, and none of this counts.
  const inOrder = [
    ...missing.filter((part) => !part.startsWith(UNCHANGING)),
    ...missing.filter((part) => part.startsWith(UNCHANGING)),
  ];
  let next = 0;
  const lost: unknown[] = [];
  const one = async (): Promise<void> => {
    for (let part = inOrder[next++]; part !== undefined; part = inOrder[next++]) {
      try {
        await get(gathering, part);
      } catch (error) {
        lost.push(error);
        // There is no room for the others either.
        if (isFull(error)) next = inOrder.length;
      }
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, one));
  if (lost.length > 0)
    throw new Error(`${String(lost.length)} parts did not come: ${String(lost[0])}`);
}

async function get(gathering: Gathering, part: string): Promise<void> {
  const { cache, older, origin, fetching, pause = wait } = gathering;
  const address = new URL(part, origin).href;
  const known = part.startsWith(UNCHANGING) ? await older.match(address) : undefined;
  if (known !== undefined) {
    await cache.put(address, known);
    return;
  }
  for (let tries = 1, millis = PAUSE; ; tries += 1, millis *= 2) {
    const response = await fetching(new Request(address, { cache: 'reload' })).catch(() => null);
    if (response?.ok === true) {
      // A body that ends too early is no part.
      if (await put(cache, address, response)) return;
    } else if (response !== null && response.status < 500)
      throw new Error(`${part}: ${String(response.status)}`);
    if (tries >= TRIES) throw new Error(`${part}: no answer`);
    await pause(millis);
  }
}

async function put(cache: Parts, address: string, response: Response): Promise<boolean> {
  try {
    await cache.put(address, response);
    return true;
  } catch (error) {
    if (isFull(error)) throw error;
    return false;
  }
}

const isFull = (error: unknown): boolean =>
  error instanceof DOMException && error.name === 'QuotaExceededError';

const wait = (millis: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, millis));

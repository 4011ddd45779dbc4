/**
 * Gets all parts of one version onto the device, over a network that loses some of them: what has come stays, what is
 * lost is asked for again, and what an older version had under the same name is not fetched a second time.
 *
 * Most parts come in parcels, many in one (`scripts/setup/parcels.mjs` makes them): an object of JSON from the paths to
 * the texts. Where there are none, as while developing, each part is asked for by itself.
 */

/** Under these names nothing ever changes: they hold a digest of what they name. */
const UNCHANGING = '/_app/immutable/';
/** How many are asked for at a time: a browser has six connections to a server, and sales must get through meanwhile. */
const AT_ONCE = 4;
/** How often one is asked for, and milliseconds before the second time. */
const TRIES = 4;
const PAUSE = 1000;
/** As a server would say of them; by what their names end with. */
const TYPES: Readonly<Record<string, string>> = {
  js: 'text/javascript',
  css: 'text/css',
  svg: 'image/svg+xml',
  webmanifest: 'application/manifest+json',
};
const PAGE = 'text/html';
/** What a server says of a parcel and not of its parts. */
const OF_THE_PARCEL = ['content-encoding', 'content-length', 'etag', 'last-modified', 'vary'];

/** As much of a `Cache` as is needed. */
interface Parts {
  put: (address: string, part: Response) => Promise<void>;
}

export interface Gathering {
  /** Paths. */
  readonly parts: readonly string[];
  /** Where this version's list of parcels is. */
  readonly parcels: string;
  readonly cache: Parts & { keys: () => Promise<readonly Request[]> };
  /** Whatever an earlier version left. */
  readonly older: { match: (address: string) => Promise<Response | undefined> };
  readonly fetching: (request: Request) => Promise<Response>;
  /** Where the parts are. @example 'https://till.example' */
  readonly origin: string;
  readonly pause?: (millis: number) => Promise<void>;
}

interface Parcel {
  readonly address: string;
  /** Paths. */
  readonly parts: readonly string[];
}

/** @throws {Error} If a part does not come; all that did is kept for the next time. */
export async function gather(gathering: Gathering): Promise<void> {
  const { parts, cache, older, origin } = gathering;
  const there = new Set((await cache.keys()).map(({ url }) => new URL(url).pathname));
  const missing = new Set(parts.filter((part) => !there.has(new URL(part, origin).pathname)));
  if (missing.size === 0) return;
  await atOnce([...missing].filter(isUnchanging), async (part) => {
    const address = new URL(part, origin).href;
    const known = await older.match(address);
    if (known === undefined) return;
    await cache.put(address, known);
    missing.delete(part);
  });
  const parcels = (await parcelsOf(gathering)).filter((parcel) => isWorthIt(parcel, missing));
  const inParcels = new Set(parcels.flatMap((parcel) => parcel.parts));
  const alone = [...missing].filter((part) => !inParcels.has(part));
  await atOnce(
    [
      // Pages first: should another version be put in place meanwhile, its own parts are not found, and none of this counts.
      ...parcels.map((parcel) => () => unpack(gathering, parcel, missing)),
      ...[
        ...alone.filter((part) => !isUnchanging(part)),
        ...alone.filter((part) => isUnchanging(part)),
      ].map((part) => () => get(gathering, part)),
    ],
    (job) => job(),
  );
}

const isUnchanging = (part: string): boolean => part.startsWith(UNCHANGING);

/** Pages only come with the others of their version; of what never changes few are asked for by themselves. */
function isWorthIt({ parts }: Parcel, missing: ReadonlySet<string>): boolean {
  const wanted = parts.filter((part) => missing.has(part));
  return wanted.length * 2 >= parts.length || wanted.some((part) => !isUnchanging(part));
}

/** All are tried, though some fail. @throws {Error} Says how many did, and how the first. */
async function atOnce<Job>(
  jobs: readonly Job[],
  doing: (job: Job) => Promise<void>,
): Promise<void> {
  let next = 0;
  const lost: unknown[] = [];
  const one = async (): Promise<void> => {
    for (let at = next++; at < jobs.length; at = next++) {
      try {
        await doing(jobs[at]!);
      } catch (error) {
        lost.push(error);
        // There is no room for the others either.
        if (isFull(error)) next = jobs.length;
      }
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, one));
  if (lost.length > 0)
    throw new Error(`${String(lost.length)} parts did not come: ${String(lost[0])}`);
}

/** None where a server has none. */
async function parcelsOf(gathering: Gathering): Promise<readonly Parcel[]> {
  try {
    const { value } = await jsonAt(gathering, gathering.parcels);
    return value as readonly Parcel[];
  } catch (error) {
    if (error instanceof NotThere) return [];
    throw error;
  }
}

/** Puts the missing ones of a parcel where each would stand had it come by itself. */
async function unpack(
  gathering: Gathering,
  { address, parts }: Parcel,
  missing: ReadonlySet<string>,
): Promise<void> {
  const { value, response } = await jsonAt(gathering, address);
  const texts = value as Readonly<Record<string, string>>;
  const { cache, origin } = gathering;
  await Promise.all(
    parts
      .filter((part) => missing.has(part))
      .map(async (part) => {
        const headers = new Headers(response.headers);
        for (const name of OF_THE_PARCEL) headers.delete(name);
        if (!isUnchanging(part)) headers.delete('cache-control');
        headers.set(
          'content-type',
          `${TYPES[part.split('.').at(-1) ?? ''] ?? PAGE}; charset=utf-8`,
        );
        await cache.put(new URL(part, origin).href, new Response(texts[part], { headers }));
      }),
  );
}

/** All of it: half of it cannot be read, and is asked for again. */
const jsonAt = (
  gathering: Gathering,
  path: string,
): Promise<{ value: unknown; response: Response }> =>
  ask(gathering, path, async (response) => ({
    value: (await response.json()) as unknown,
    response,
  }));

async function get(gathering: Gathering, part: string): Promise<void> {
  const address = new URL(part, gathering.origin).href;
  await ask(gathering, part, (response) => gathering.cache.put(address, response));
}

/** A server that has it not. */
class NotThere extends Error {}

/**
 * Asks until the answer could be taken.
 * @param take Rejects what ended too early.
 * @returns What was made of it.
 */
async function ask<Taken>(
  { origin, fetching, pause = wait }: Gathering,
  path: string,
  take: (response: Response) => Promise<Taken>,
): Promise<Taken> {
  const address = new URL(path, origin).href;
  for (let tries = 1, millis = PAUSE; ; tries += 1, millis *= 2) {
    const response = await fetching(new Request(address, { cache: 'reload' })).catch(() => null);
    if (response?.ok === true) {
      try {
        return await take(response);
      } catch (error) {
        if (isFull(error)) throw error;
      }
    } else if (response !== null && response.status < 500)
      throw new NotThere(`${path}: ${String(response.status)}`);
    if (tries >= TRIES) throw new Error(`${path}: no answer`);
    await pause(millis);
  }
}

const isFull = (error: unknown): boolean =>
  error instanceof DOMException && error.name === 'QuotaExceededError';

const wait = (millis: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, millis));

/** Writing a mirror, and how far one reaches: what the worker needs of it, which comes with every page. */
import { jsonOrNull } from '../../core/formats/json-or-null';
import type { MirrorLine } from './mirror-file';

export const asText = (lines: readonly MirrorLine[]): string =>
  lines.map((line) => `${JSON.stringify(line)}\n`).join('');

/** Whose a mirror is, since which dropping of what is personal, and up to which own `seq` it reaches. */
export interface Reach {
  readonly device: string;
  readonly erasures: number;
  readonly upTo: number;
}

/** What a line may say, as far as it matters here. */
interface Said {
  readonly identity?: { readonly device?: unknown };
  readonly erasures?: unknown;
  readonly block?: unknown;
  readonly head?: { readonly seq?: unknown };
}

/**
 * @returns Null for a mirror that is not whole to its end: what is written behind half a line would be lost with it,
 *   so that all of it has to be made anew.
 */
export function reachOf(text: string): Reach | null {
  // Each line ends with a break, the last one too.
  const lines = text.split('\n');
  if (lines.pop() !== '') return null;
  const [first, ...rest] = lines.map((line) => jsonOrNull(line) as Said | null);
  const device = first?.identity?.device;
  const erasures = first?.erasures ?? 0;
  if (typeof device !== 'string' || typeof erasures !== 'number') return null;
  let upTo = 0;
  for (const line of rest) {
    if (line?.block !== undefined) continue;
    const seq = line?.head?.seq;
    if (typeof seq !== 'number') return null;
    upTo = seq;
  }
  return { device, erasures, upTo };
}

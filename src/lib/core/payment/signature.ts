/** A signature for a card payment: when one is asked for, and how it is kept small. */

/** A line drawn without lifting the pen: x and y in turn, in the units of `SIGNATURE_BOX`. */
export type Stroke = readonly number[];
export type Signature = readonly Stroke[];

/** What a signature is drawn in; whatever it was drawn on is scaled to it. */
export const SIGNATURE_BOX = { width: 1000, height: 360 } as const;
export const MOST_STROKES = 60;
/** In one stroke. */
export const MOST_POINTS = 400;
/** Of all strokes together; each is at most four figures and a comma. */
const MOST_NUMBERS = 8000;
/** Closer to the last one than this a point says nothing. */
const STEP = 4;
/** Drawn in all, below which it is a slip of the finger and no signature. */
const LEAST = 120;

export interface Point {
  readonly x: number;
  readonly y: number;
}

/**
 * Whether a card that was read at the reader for this amount has to be signed for.
 * @param business Of which `signAbove`, in minor units, is the limit; null is none.
 * @param amount Minor units that it is charged in all.
 */
export const mustSign = (
  { signAbove }: { readonly signAbove: number | null },
  amount: number,
): boolean => signAbove !== null && amount > signAbove;

export type SignatureOutcome =
  | { readonly ok: true; readonly signature: Signature }
  | { readonly ok: false; readonly refusal: { readonly code: 'signature/too-little' } };

/**
 * What was drawn, scaled to the box and without the points that say nothing.
 * @param drawn Points of each stroke, in the units of what they were drawn on.
 * @param width Of what it was drawn on, in the same units.
 */
export function readSignature(
  drawn: readonly (readonly Point[])[],
  width: number,
): SignatureOutcome {
  const scale = SIGNATURE_BOX.width / width;
  const strokes = drawn.slice(0, MOST_STROKES).map((points) => scaled(points, scale));
  const signature = shortened(strokes.filter((stroke) => stroke.length > 0));
  const length = signature.reduce((all, stroke) => all + lengthOf(stroke), 0);
  return length < LEAST
    ? { ok: false, refusal: { code: 'signature/too-little' } }
    : { ok: true, signature };
}

/** As many strokes as one entry has room for. */
function shortened(strokes: readonly Stroke[]): readonly Stroke[] {
  let numbers = 0;
  return strokes.filter((stroke) => (numbers += stroke.length) <= MOST_NUMBERS);
}

/** As the `d` of an SVG path within `SIGNATURE_BOX`. */
export const signaturePath = (signature: Signature): string =>
  signature
    .map((stroke) => {
      const points: string[] = [];
      for (let at = 0; at + 1 < stroke.length; at += 2)
        points.push(`${String(stroke[at])} ${String(stroke[at + 1])}`);
      // A dot is a line of no length, which a round end makes visible.
      return `M${points[0] ?? ''}${points.length === 1 ? 'h0' : `L${points.slice(1).join(' ')}`}`;
    })
    .join('');

function scaled(points: readonly Point[], scale: number): Stroke {
  const stroke: number[] = [];
  for (const point of points) {
    const x = within(point.x * scale, SIGNATURE_BOX.width);
    const y = within(point.y * scale, SIGNATURE_BOX.height);
    const [lastX, lastY] = [stroke.at(-2), stroke.at(-1)];
    const isFirst = lastX === undefined || lastY === undefined;
    if (!isFirst && Math.hypot(x - lastX, y - lastY) < STEP) continue;
    stroke.push(x, y);
    if (stroke.length >= MOST_POINTS * 2) break;
  }
  return stroke;
}

function lengthOf(stroke: Stroke): number {
  let length = 0;
  for (let at = 2; at + 1 < stroke.length; at += 2)
    length += Math.hypot(
      (stroke[at] ?? 0) - (stroke[at - 2] ?? 0),
      (stroke[at + 1] ?? 0) - (stroke[at - 1] ?? 0),
    );
  return length;
}

const within = (value: number, most: number): number =>
  Math.min(most, Math.max(0, Math.round(value)));

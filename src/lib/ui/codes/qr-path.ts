/** A text as a QR code, drawn as one path. */
import { encode } from 'uqr';

export interface QrPath {
  readonly path: string;
  readonly viewBox: string;
}

/** Modules of one unit, with the quiet zone of four that readers need (ISO/IEC 18004). */
export function qrPath(text: string): QrPath {
  const { data, size } = encode(text, { ecc: 'M', border: 4 });
  const squares = data.flatMap((row, y) =>
    row.flatMap((isDark, x) => (isDark ? [`M${String(x)} ${String(y)}h1v1h-1z`] : [])),
  );
  return { path: squares.join(''), viewBox: `0 0 ${String(size)} ${String(size)}` };
}

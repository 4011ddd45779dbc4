/** Pictures made small enough to travel with the entries. */
const SIDE = 320;
/** A bill must be read: longer, and more may go into it. */
const LONGEST = 1000;
const MOST_CHARACTERS = { square: 60_000, whole: 85_000 } as const;
const QUALITIES = [0.82, 0.65, 0.5, 0.35, 0.2];

/**
 * A picture as a data address of a JPEG at the best quality that keeps it small: a square of 320 pixels cut from its
 * middle, about 45 kB; or whole, its longer side at most 1000 pixels, about 64 kB.
 * @returns Null if it is no picture that the browser can read.
 */
export async function scaledDown(
  file: Blob,
  shape: 'square' | 'whole' = 'square',
): Promise<string | null> {
  const bitmap = await createImageBitmap(file).catch(() => null);
  if (bitmap === null) return null;
  const { width, height } = bitmap;
  const side = Math.min(width, height);
  const cut =
    shape === 'square'
      ? { x: (width - side) / 2, y: (height - side) / 2, width: side, height: side }
      : { x: 0, y: 0, width, height };
  try {
    const most = shape === 'square' ? SIDE : LONGEST;
    // Where even the worst quality is too much, the picture is made smaller.
    for (const scale of [1, 0.7, 0.5]) {
      const longest = Math.min(most * scale, Math.max(cut.width, cut.height));
      const by = longest / Math.max(cut.width, cut.height);
      const canvas = document.createElement('canvas');
      canvas.width = Math.max(1, Math.round(cut.width * by));
      canvas.height = Math.max(1, Math.round(cut.height * by));
      const context = canvas.getContext('2d');
      if (context === null) return null;
      const { x, y } = cut;
      context.drawImage(bitmap, x, y, cut.width, cut.height, 0, 0, canvas.width, canvas.height);
      for (const quality of QUALITIES) {
        const data = canvas.toDataURL('image/jpeg', quality);
        if (data.length <= MOST_CHARACTERS[shape]) return data;
      }
    }
    return null;
  } finally {
    bitmap.close();
  }
}

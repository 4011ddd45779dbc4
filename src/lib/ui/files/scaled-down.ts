/** Pictures made small enough to travel with the goods. */
const SIDE = 320;
const MOST_CHARACTERS = 60_000;

/**
 * A picture as a data address of a JPEG: a square of 320 pixels cut from its middle, at the best
 * quality that keeps it below about 45 kB.
 * @returns Null if it is no picture that the browser can read.
 */
export async function scaledDown(file: Blob): Promise<string | null> {
  const bitmap = await createImageBitmap(file).catch(() => null);
  if (bitmap === null) return null;
  const side = Math.min(bitmap.width, bitmap.height);
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = Math.min(SIDE, side);
  const [left, top] = [(bitmap.width - side) / 2, (bitmap.height - side) / 2];
  const context = canvas.getContext('2d');
  if (context === null) return null;
  context.drawImage(bitmap, left, top, side, side, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  for (const quality of [0.82, 0.65, 0.5, 0.35]) {
    const data = canvas.toDataURL('image/jpeg', quality);
    if (data.length <= MOST_CHARACTERS) return data;
  }
  return null;
}

/** Hands a file to another program of the device, as an enclosure of a letter or a message (Web Share). */
import type { Letter } from './mail-to';

const fileOf = (name: string, type: string, content: Uint8Array): File =>
  new File([content as BlobPart], name, { type });

/** Whether this browser hands PDFs to other programs at all. */
export const canShare = (): boolean =>
  typeof navigator.canShare === 'function' &&
  navigator.canShare({ files: [fileOf('a.pdf', 'application/pdf', new Uint8Array())] });

/** @returns What went wrong, in words; empty also where somebody thought better of it. */
export async function shareFile(
  name: string,
  type: string,
  content: Uint8Array,
  { subject, text }: Letter,
): Promise<string> {
  try {
    await navigator.share({ files: [fileOf(name, type, content)], title: subject, text });
    return '';
  } catch (error) {
    return error instanceof DOMException && error.name === 'AbortError'
      ? ''
      : `${name} could not be handed on; save it as a PDF and put it with the letter.`;
  }
}

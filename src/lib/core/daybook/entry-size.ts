/** How large an entry may be: what somebody writes at a stall is small, and one hostile one must not be large. */
import { utf8ToBytes } from '@noble/hashes/utils.js';
import type { Entry } from './entry';

/** Bytes, as JSON in UTF-8. */
export const LARGEST_ENTRY = 64 * 1024;
export const LARGEST_PICTURE_ENTRY = 100 * 1024;

export const bytesOf = (value: unknown): number => utf8ToBytes(JSON.stringify(value)).length;

export const isTooLarge = (entry: Entry): boolean =>
  bytesOf(entry) > (entry.kind === 'photo.set' ? LARGEST_PICTURE_ENTRY : LARGEST_ENTRY);

/** What is kept or compared in place of a text: tokens and links that nobody is to read, keys of limits, hashes of entries. */
import { createHash } from 'node:crypto';

/** SHA-256 of the text as UTF-8, in lowercase hexadecimal: 64 figures. By the system, in a fifth of the time of the one that devices have as well. */
export const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');

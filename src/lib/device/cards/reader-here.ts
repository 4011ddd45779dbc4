/** The card reader of this device: so far the one for practice. */
import type { CardKey } from '../database';
import type { CardReader } from './card-reader';
import { PracticeReader } from './practice-reader.svelte';

/** Null where there is none. @param key What cards are sealed with, once it has been heard of. */
export const readerHere = (key: CardKey | null): CardReader | null =>
  key?.isPractice === true ? new PracticeReader(key.key) : null;

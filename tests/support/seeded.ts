/** Loaded before every test file: properties without a seed of their own draw from SEED as well. */
import fc from 'fast-check';
import { SEED, TIMES } from './random';

fc.configureGlobal({ seed: SEED, numRuns: 100 * TIMES });

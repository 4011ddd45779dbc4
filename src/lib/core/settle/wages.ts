/** Wages by the hour (docs/rules.md, "Settling"). */
import { fraction, roundToMinor } from '../money/fraction';
import type { Minor } from '../money/units';

/** `R(minutes × rate per hour / 60)`. Minor units. @example wageOf(575, 1144) // => 10963 */
export const wageOf = (minutes: number, perHour: number): Minor =>
  roundToMinor(fraction(BigInt(minutes) * BigInt(perHour), 60));

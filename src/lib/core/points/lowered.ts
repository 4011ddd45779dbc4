/** How parts paid by points, rewards and vouchers of one purpose lower the taxes of a sale (docs/rules.md). */
import { fraction, roundToMinor } from '../money/fraction';

/** A tax of a sale, or what of it a part lowers. Minor units. */
export interface LoweredTax {
  readonly id: string;
  readonly amount: number;
  readonly base: number;
}

/** Parts that clear more than the sale comes to, or a sale that comes to nothing. */
export class PromotionError extends RangeError {
  constructor(message: string) {
    super(message);
    this.name = 'PromotionError';
  }
}

/**
 * What each part lowers each tax by: all parts so far lower an amount `a` by `R(a × P / T)`, the nth by the
 * difference to what those before it did.
 *
 * @param total What the sale comes to with tax, above nothing.
 * @param parts What each of them clears, in order.
 * @throws {PromotionError}
 */
export function loweredBy(
  total: number,
  taxes: readonly LoweredTax[],
  parts: readonly number[],
): LoweredTax[][] {
  if (total <= 0) throw new PromotionError('a sale that comes to nothing has no tax to lower');
  let cleared = 0;
  let before = taxes.map(({ id }) => ({ id, amount: 0, base: 0 }));
  return parts.map((part, at) => {
    cleared += part;
    if (cleared > total)
      throw new PromotionError(
        `parts[${String(at)}]: with it ${String(cleared)} would be cleared of ${String(total)}`,
      );
    const of = (figure: number): number =>
      roundToMinor(fraction(BigInt(figure) * BigInt(cleared), total));
    const now = taxes.map(({ id, amount, base }) => ({ id, amount: of(amount), base: of(base) }));
    const by = now.map(({ id, amount, base }, tax) => ({
      id,
      amount: amount - before[tax]!.amount,
      base: base - before[tax]!.base,
    }));
    before = now;
    return by;
  });
}

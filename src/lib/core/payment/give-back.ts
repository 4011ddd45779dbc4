/** What comes back of a line's value when some of its goods do (docs/rules.md, "Returns"). */
import { fraction, roundToMinor } from '../money/fraction';
import { minor, sum, type Minor } from '../money/units';

/** More would come back than was sold, or nothing was sold, or a part of a return is of no goods. */
export class CannotComeBackError extends RangeError {
  constructor(readonly why: 'nothing sold' | 'not goods' | 'more than sold') {
    super(
      {
        'nothing sold': 'of a line with a quantity of nothing nothing can come back',
        'not goods':
          'what comes back must be goods of the line, so of the same sign and not nothing',
        'more than sold': 'more would come back than the line had',
      }[why],
    );
    this.name = 'CannotComeBackError';
  }
}

/**
 * What each return gives, one after another: after `q` of `Q` in all, `R(value × q / Q)` in all,
 * less what the earlier ones gave. The last one gives exactly the rest. The same for a line's price,
 * each of its taxes, and its share of a discount or surcharge.
 *
 * Units: `value` in minor units, quantities in thousandths.
 * @throws {CannotComeBackError}
 * @example givenBack(1000, 3000, [1000, 1000, 1000]) // => [333, 334, 333]
 */
export function givenBack(value: number, quantity: number, comesBack: readonly number[]): Minor[] {
  if (quantity === 0) throw new CannotComeBackError('nothing sold');
  let [back, given] = [0, 0];
  return comesBack.map((part) => {
    if (part === 0 || Math.sign(part) !== Math.sign(quantity))
      throw new CannotComeBackError('not goods');
    back = sum([back, part]);
    if (Math.abs(back) > Math.abs(quantity)) throw new CannotComeBackError('more than sold');
    const share = fraction(BigInt(minor(value)) * BigInt(Math.abs(back)), Math.abs(quantity));
    const inAll = roundToMinor(share);
    const now = minor(inAll - given);
    given = inAll;
    return now;
  });
}

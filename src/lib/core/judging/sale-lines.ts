/** The lines of a sale against the goods they are of, as they were set up then or lately. */
import type { ExtraGroup, Row } from '../books/tables';
import type { BodyOf, EntryOf } from '../daybook/kinds';
import { itemAt } from '../event/event-prices';
import { percentOf } from '../money/percent';
import { priceOn } from '../pricing/two-prices';
import { lineAmount } from '../slip/line-amount';
import type { Evidence } from './evidence';
import { paidInDoubt } from './held';
import { agreedIn, type Agreed } from './ordered';
import type { Doubt } from './verdict';

type Line = Pick<
  EntryOf<'sale.rung'>['body']['lines'][number],
  | 'item'
  | 'name'
  | 'unit'
  | 'quantity'
  | 'price'
  | 'gross'
  | 'cost'
  | 'isStocked'
  | 'extras'
  | 'listPrice'
  | 'maker'
  | 'standing'
>;
type Item = Omit<BodyOf<'item.set'>, 'id'>;

/** What lines are sold by: where and when, and whose standing discount they have. */
interface Selling {
  readonly event: string | null;
  readonly stamp: string;
  readonly customer: string | undefined;
  readonly standingName: string | undefined;
}

export function linesDoubt(entry: EntryOf<'sale.rung'>, evidence: Evidence): Doubt | null {
  const paidIn = paidInDoubt(entry, evidence);
  if (paidIn !== null) return paidIn;
  const { event, stamp, body } = entry;
  const { customer, standingName } = body;
  const ordered = agreedIn(entry, evidence);
  if ('code' in ordered) return ordered;
  for (const line of body.lines) {
    if (line.account !== undefined) continue;
    const selling = { event, stamp, customer, standingName };
    const doubt = lineDoubt(line, selling, evidence, ordered.get(line));
    if (doubt !== null) return doubt;
  }
  const { net = 0, total = 0 } = entry.body.service ?? {};
  return net < 0 || total < net ? { code: 'sale/service', found: total } : null;
}

/** @param agreed Of a line that an order had at this price. */
export function lineDoubt(
  line: Line,
  entry: Selling,
  evidence: Evidence,
  agreed?: Agreed,
): Doubt | null {
  const items: readonly Item[] =
    line.item === null ? [] : evidence.history.inForce('item.set', line.item, entry.stamp);
  const found = line.name;
  const sold = items.length === 0 ? [] : [...items, ...atEvent(line, entry, items, evidence)];
  if (agreed === undefined) {
    if (items.length > 0 && line.listPrice === undefined && !isPriceOf(line, sold))
      return { code: 'sale/line-price', found, wanted: items[0]!.price };
    if (items.length > 0 && !areExtrasOf(line, items)) return { code: 'sale/line-extra', found };
  }
  const own = items.flatMap(({ otherPrice }) => otherPrice ?? []);
  const others = agreed?.otherPrice === undefined ? own : [agreed.otherPrice, ...own];
  if (!isSumRight(line, others, entry, evidence)) return { code: 'sale/line-sum', found };
  if (items.length > 0 && !items.some(({ cost }) => cost === line.cost))
    return { code: 'sale/line-cost', found };
  if (items.length > 0 && !items.some(({ isStocked }) => isStocked === line.isStocked))
    return { code: 'sale/line-stock', found };
  // Another's goods would be paid out to whoever is named.
  if (items.length > 0 && !items.some(({ maker }) => maker === (line.maker ?? null)))
    return { code: 'sale/line-maker', found };
  return isStandingGranted(line, entry, evidence) ? null : { code: 'sale/standing', found };
}

/** As the event has its prices now, or had them lately. */
function atEvent(
  { item }: Line,
  { event, stamp }: Selling,
  items: readonly Item[],
  { history, books }: Evidence,
): readonly Item[] {
  if (event === null || item === null) return [];
  const row = books.row('events', event);
  const known = row === undefined ? history.inForce('event.set', event, stamp) : [row];
  return (known as readonly Partial<Row<'events'>>[]).flatMap(({ single = [], over = [] }) =>
    items.map((each) => itemAt({ ...each, id: item }, { single, over })),
  );
}

/**
 * Not below what it was priced at. An open price is the seller's, and so is one on a label of the shop
 * (a five-figure code) for goods that are counted; of what is weighed, a label's price is the quantity's to
 * the minor unit.
 */
function isPriceOf({ price, quantity, gross }: Line, items: readonly Item[]): boolean {
  return items.some((item) => {
    if (item.isOpenPrice || item.price === 0 || price >= item.price) return true;
    const hasLabels = /^\d{5}$/.test(item.code);
    if (hasLabels && item.unit === '') return true;
    return item.unit !== '' && Math.abs(lineAmount(item.price, quantity) - gross) <= 1;
  });
}

/** Additions that the item has, each not below its price. */
function areExtrasOf({ extras = [] }: Line, items: readonly Item[]): boolean {
  const isOption =
    (groups: readonly ExtraGroup[]) =>
    ({ name, price }: { readonly name: string; readonly price: number }): boolean =>
      price >= 0
        ? groups.every(({ options }) =>
            options.every((option) => option.name !== name || price >= option.price),
          )
        : groups.some(({ options }) =>
            options.some((option) => option.name === name && price >= option.price),
          );
  return items.some((item) => extras.every(isOption(item.extras)));
}

/** `R((price + extras) × quantity)` on the cash side, as the vendor priced then or lately. */
function isSumRight(
  { price, extras = [], quantity, gross, listPrice }: Line,
  others: readonly number[],
  { stamp }: Selling,
  { history, business }: Evidence,
): boolean {
  // Another price goes without the item's own one for the other side.
  const own = listPrice === undefined ? others : [];
  return history.inForce('business.set', business, stamp).some(({ typedSide, uplift }) => {
    const prices = { typedSide, uplift };
    const added = extras.reduce((all, extra) => all + priceOn('cash', extra.price, prices), 0);
    return [undefined, ...own].some(
      (other) => lineAmount(priceOn('cash', price, prices, other) + added, quantity) === gross,
    );
  });
}

/** A customer's or a group's standing discount is one that was agreed with them. */
function isStandingGranted(
  { gross, standing = 0 }: Line,
  { stamp, customer, standingName }: Selling,
  evidence: Evidence,
): boolean {
  if (standing === 0) return true;
  const { history, business } = evidence;
  const own =
    customer === undefined
      ? []
      : evidence.agreedWith(customer, stamp).map(({ discount }) => discount);
  const groups = history
    .inForce('business.set', business, stamp)
    .flatMap(({ groups: all }) => all.filter(({ name }) => name === standingName))
    .map(({ percent }) => percent);
  return [...own, ...groups].some((percent) => {
    const most = percentOf(Math.abs(gross), percent);
    return Math.sign(standing) === Math.sign(gross) && Math.abs(standing) <= most;
  });
}

/** Standing charges of the demo, both due today: one that is paid when asked, and one whose card is on file no more. */
import { UNITS } from '../src/lib/core/daybook/kinds/charge';
import { draft } from '../src/lib/core/daybook/kinds';
import { localTime } from '../src/lib/core/event/local-time';
import { readAmount } from '../src/lib/core/money/amount-text';
import type { BookReader } from '../src/lib/server/books/read-books';
import { makeCharges } from '../src/lib/server/charges/make-charges';
import { takeCards } from '../src/lib/server/charges/take-cards';
import type { DemoBusiness } from './business';
import { newId, type DemoDevice } from './demo-device';
import { recordIdOf } from './ids';

/** Set up by the owner, and made by the server as it does every day. */
export async function standingCharges(
  desk: DemoDevice,
  books: BookReader,
  demo: DemoBusiness,
  now: number,
): Promise<void> {
  const { timeZone, pricesIncludeTax, currency } = demo.business;
  const today = localTime(now, timeZone).day;
  const card = demo.ways.find(({ method }) => method === 'card' || method === 'keyed');
  const amountOf = (typed: string): number => {
    const read = readAmount(typed, currency);
    if (!read.ok) throw new Error(read.refusal.code);
    return read.amount;
  };
  const set = (who: string, what: string, price: string, way: string | null) => {
    const id = newId();
    const [, month] = UNITS;
    return draft('charge.set', id, null, {
      ...{ id, customer: recordIdOf(demo.id, 'customer', who), unit: month, every: 1 },
      lines: [
        {
          ...{ name: what, quantity: 1000, price: amountOf(price) },
          taxes: demo.taxes.slice(0, pricesIncludeTax ? 1 : undefined).map((tax) => tax.id),
        },
      ],
      ...{ from: today, notBefore: today, until: null, country: demo.invoices.vendor.country },
      ...{ way, consent: way === null ? null : ('written' as const) },
      ...{ isMailed: false, isActive: true },
    });
  };
  const { monthly, byCard, who: regular } = demo.charges;
  const owner = demo.staff[0]?.id ?? null;
  desk.write(
    [
      set(regular.who.name, ...byCard, card?.id ?? null),
      set(demo.invoices.to.who.name, ...monthly, null),
    ],
    now,
    owner,
  );
  await desk.send();
  await makeCharges(desk.database, books, now);
  await takeCards(desk.database, books, null, now);
}

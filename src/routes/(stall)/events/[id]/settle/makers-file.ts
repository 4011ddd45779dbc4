/** All makers' statements of an event in a file. */
import type { Row } from '$lib/core/books/tables';
import { guarded } from '$lib/core/formats/csv-cell';
import { quantityText, thousandths } from '$lib/core/money/units';
import type { MakerSettled } from '$lib/core/settle/people';
import { saveCsv } from '$lib/ui/files/save-csv';
import type { SettleNames } from '$lib/ui/words/settle-words';

interface OfEvent {
  readonly names: SettleNames;
  readonly event: Row<'events'>;
}

/** A CSV file (RFC 4180), a line for each of their goods. */
export function saveMakersFile(makers: readonly MakerSettled[], { names, event }: OfEvent): void {
  const { money } = names;
  saveCsv(
    `Makers ${event.short}`,
    makers.flatMap(({ maker, goods, commission, toPay, paid, sold, tax }) => {
      const name = guarded(names.maker(maker));
      const none = { quantity: '', net: '', tax: '', commission: '', to_pay: '', paid: '' };
      return [
        ...goods.map((line) => ({
          ...{ maker: name, goods: guarded(line.name), ...none },
          quantity: quantityText(thousandths(line.quantity)),
          ...{ net: money.plain(line.net), tax: money.plain(line.tax) },
        })),
        {
          ...{ maker: name, goods: 'all', ...none },
          ...{ net: money.plain(sold), tax: money.plain(tax) },
          ...{ commission: money.plain(commission), to_pay: money.plain(toPay) },
          paid: money.plain(paid),
        },
      ];
    }),
  );
}

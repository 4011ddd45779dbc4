/** What each event brought, as long as a component is there that shows it. */
import type { Row } from '../core/books/tables';
import type { DeviceDatabase } from './database';
import { live, type Live } from './live.svelte';

/** By the event. */
export const eventTotals = (db: DeviceDatabase): Live<ReadonlyMap<string, Row<'eventTotals'>>> =>
  live(
    () => async () =>
      new Map((await db.books.eventTotals.toArray()).map((row) => [row.event, row])),
    new Map<string, Row<'eventTotals'>>(),
  );

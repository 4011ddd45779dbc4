/** What places are called: one's own, events, on the way, and what is gone. */
import { BASE, SUPPLIERS } from '../books/names';
import type { Row } from '../books/tables';

export interface NamedPlaces {
  readonly places: readonly Pick<Row<'places'>, 'id' | 'name'>[];
  readonly events: readonly Pick<Row<'events'>, 'id' | 'short'>[];
  readonly suppliers: readonly Pick<Row<'suppliers'>, 'id' | 'name'>[];
}

/** @param supplier Who it is, where the place is at suppliers; null for not known. */
export function placeName(
  place: string,
  { places, events, suppliers }: NamedPlaces,
  supplier: string | null = null,
): string {
  if (place === SUPPLIERS) return suppliers.find(({ id }) => id === supplier)?.name ?? 'a supplier';
  if (place.startsWith('way:')) return 'on the way';
  if (place.startsWith('gone:')) return `gone: ${place.slice(5).replaceAll('-', ' ')}`;
  const own = places.find(({ id }) => id === place);
  if (own !== undefined && (own.name !== '' || place !== BASE)) return own.name;
  if (place === BASE) return 'Base';
  return events.find(({ id }) => id === place)?.short ?? 'a place not known here';
}

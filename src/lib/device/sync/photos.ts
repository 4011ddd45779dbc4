/** Pictures of goods, fetched behind all else that a new device starts from; a page at a time. */
import { photosAnswerSchema } from '../../core/daybook/sync-messages';
import type { Row } from '../../core/books/tables';
import type { DeviceDatabase } from '../database';
import { NO_STANDING } from '../receive';
import type { Transport } from './transport';

/** One page, if any are still to come. What was set meanwhile is newer and stays. */
export async function fetchPhotos(db: DeviceDatabase, transport: Transport): Promise<void> {
  const after = (await db.read('standing'))?.photosAfter;
  if (after === null || after === undefined) return;
  const asked = await transport.ask(`/api/sync/photos?after=${after}`, photosAnswerSchema);
  if (asked.came !== 'answer') return;
  const photos = asked.answer.photos as unknown as readonly Row<'photos'>[];
  await db.transaction('rw', [db.meta, db.books.photos], async () => {
    for (const photo of photos) {
      const known = await db.books.photos.get(photo.id);
      if (known === undefined || known.setStamp < photo.setStamp) await db.books.photos.put(photo);
    }
    const standing = (await db.read('standing')) ?? NO_STANDING;
    await db.write('standing', { ...standing, photosAfter: asked.answer.next });
  });
}

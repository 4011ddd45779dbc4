import type { SeenDevice } from '$lib/core/access/account-messages';
import { devicesOf } from '$lib/server/access/devices';
import { answer } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** The devices of the owner's business, with the names that people gave them. */
export const GET: RequestHandler = async ({ locals }) => {
  const { database, books } = services();
  const { business } = locals.owner;
  const names = new Map((await books.rows(business, 'devices')).map(({ id, name }) => [id, name]));
  const devices: SeenDevice[] = (await devicesOf(database, business)).map((seen) => ({
    ...seen,
    name: names.get(seen.device) ?? '',
  }));
  return answer({ devices });
};

import { answer } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** What works, for whoever watches the server. Says nothing of any business. */
export const GET: RequestHandler = async () => {
  try {
    await services().database.sequelize.query('SELECT 1');
    return answer({ server: 'ok', database: 'ok' });
  } catch {
    return answer({ server: 'ok', database: 'does not answer' }, 503);
  }
};

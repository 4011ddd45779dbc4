import { answer } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** What people are paid: for the owner alone. */
export const GET: RequestHandler = async ({ locals }) => {
  const { business } = locals.owner;
  const rows = await services().books.rows(business, 'staffPay');
  return answer({
    business,
    pay: rows.map(({ id, wage, commission }) => ({ id, wage, commission })),
  });
};

import { answer } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** The vendor's own accounts of the ledger, as far as any were said. */
export const GET: RequestHandler = async ({ locals }) => {
  const [chart] = await services().books.rows(locals.device.business, 'ledgerCharts');
  return answer({ accounts: chart?.accounts ?? [] });
};

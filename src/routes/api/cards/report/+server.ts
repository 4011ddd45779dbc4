import { reportQuerySchema } from '$lib/core/payment/card-messages';
import { reportOf } from '$lib/server/cards/report';
import { answer, refused } from '$lib/server/http/answers';
import { services } from '$lib/server/services';
import type { RequestHandler } from './$types';

/** What the acquirer says of a day: lines about this business's cards, as they go into the daybook. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const asked = reportQuerySchema.safeParse(url.searchParams.get('day'));
  if (!asked.success)
    return refused(422, 'query/wrong', 'day', 'Ask for a day such as 2026-11-22.');
  const { acquirer } = services();
  if (acquirer === null) return refused(503, 'card/no-acquirer');
  const report = await reportOf(acquirer, locals.device.business, asked.data);
  return report === null ? refused(503, 'card/no-report') : answer(report);
};

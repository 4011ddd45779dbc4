import type { Limits, Rule } from '../access/limits';
import { refused } from './answers';

/** Counts a try; the answer that turns it away when there were too many, or null. */
export async function tooMany(limits: Limits, rule: Rule, who: string): Promise<Response | null> {
  const wait = await limits.count(rule, who);
  if (wait === 0) return null;
  const response = refused(429, 'tries/too-many', Math.ceil(wait / 60));
  response.headers.set('retry-after', String(wait));
  return response;
}

/** One request to our own server: every answer is checked, every outcome returned. */
import type { z } from 'zod';
import { refusalSchema, type Refusal } from '../../core/daybook/sync-messages';

/** What came of asking. `nothing`: there is no telling whether the server did it. */
export type Asked<T> =
  | { readonly came: 'answer'; readonly answer: T }
  | { readonly came: 'refusal'; readonly status: number; readonly refusal: Refusal }
  | { readonly came: 'nothing' };

const PATIENCE = 15_000;

export interface Question {
  readonly path: string;
  readonly method?: 'GET' | 'POST' | 'DELETE';
  readonly body?: unknown;
  readonly headers?: Readonly<Record<string, string>>;
}

export async function askServer<S extends z.ZodType>(
  { path, body, method = body === undefined ? 'GET' : 'POST', headers = {} }: Question,
  schema: S,
  fetching: typeof fetch = (...args) => fetch(...args),
): Promise<Asked<z.infer<S>>> {
  let response: Response;
  let value: unknown;
  try {
    response = await fetching(path, {
      method,
      headers: {
        ...headers,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      signal: AbortSignal.timeout(PATIENCE),
      cache: 'no-store',
    });
    value = await response.json();
  } catch {
    return { came: 'nothing' };
  }
  const answer = schema.safeParse(value);
  if (response.ok && answer.success) return { came: 'answer', answer: answer.data };
  const refusal = refusalSchema.safeParse(value);
  if (refusal.success && response.status < 500) {
    return { came: 'refusal', status: response.status, refusal: refusal.data };
  }
  // A push that was refused in part answers so, with what was taken.
  if (answer.success) return { came: 'answer', answer: answer.data };
  // Something between us and the server answered, or the server is not well: try later.
  return { came: 'nothing' };
}

/** Talking to the server, and nothing else: every answer is checked, every outcome returned. */
import type { z } from 'zod';
import {
  enrolAnswerSchema,
  pullAnswerSchema,
  pushAnswerSchema,
  refusalSchema,
  startAnswerSchema,
  type EnrolAnswer,
  type PullAnswer,
  type PushAnswer,
  type Refusal,
  type StartAnswer,
} from '../../core/daybook/sync-messages';
import type { Entry } from '../../core/daybook/entry';

/** What came of asking. `unanswered`: there is no telling whether the server did it. */
export type Asked<T> =
  | { readonly came: 'answer'; readonly answer: T }
  | { readonly came: 'refusal'; readonly status: number; readonly refusal: Refusal }
  | { readonly came: 'nothing' };

const PATIENCE = 15_000;

export class Transport {
  constructor(
    readonly token: string,
    readonly fetching: typeof fetch = (...args) => fetch(...args),
  ) {}

  push(entries: readonly Entry[]): Promise<Asked<PushAnswer>> {
    return this.#ask('/api/sync/push', pushAnswerSchema, { entries });
  }

  pull(after: number): Promise<Asked<PullAnswer>> {
    return this.#ask(`/api/sync/pull?after=${String(after)}`, pullAnswerSchema);
  }

  start(): Promise<Asked<StartAnswer>> {
    return this.#ask('/api/sync/start', startAnswerSchema);
  }

  enrol(code: string, device: string): Promise<Asked<EnrolAnswer>> {
    return this.#ask('/api/enrol', enrolAnswerSchema, { code, device, token: this.token });
  }

  /** Any other route; the caller brings the shape of the answer. */
  ask<S extends z.ZodType>(path: string, schema: S, body?: unknown): Promise<Asked<z.infer<S>>> {
    return this.#ask(path, schema, body);
  }

  async #ask<S extends z.ZodType>(
    path: string,
    schema: S,
    body?: unknown,
  ): Promise<Asked<z.infer<S>>> {
    let response: Response;
    let value: unknown;
    try {
      response = await this.fetching(path, {
        method: body === undefined ? 'GET' : 'POST',
        headers: {
          authorization: `Bearer ${this.token}`,
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
    if (answer.success) return { came: 'answer', answer: answer.data };
    const refusal = refusalSchema.safeParse(value);
    if (refusal.success && response.status < 500) {
      return { came: 'refusal', status: response.status, refusal: refusal.data };
    }
    // Something between us and the server answered, or the server is not well: try later.
    return { came: 'nothing' };
  }
}

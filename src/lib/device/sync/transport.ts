/** Talking to the server, and nothing else: every answer is checked, every outcome returned. */
import type { z } from 'zod';
import {
  enrolAnswerSchema,
  pullAnswerSchema,
  pushAnswerSchema,
  startPageSchema,
  type EnrolAnswer,
  type PullAnswer,
  type PushAnswer,
  type StartAnswer,
  type StartPage,
} from '../../core/daybook/sync-messages';
import { doneSchema } from '../../core/access/account-messages';
import type { Entry } from '../../core/daybook/entry';
import { askServer, type Asked } from './ask-server';

export type { Asked };

export class Transport {
  constructor(
    readonly token: string,
    readonly fetching: typeof fetch = (...args) => fetch(...args),
  ) {}

  push(entries: readonly Entry[]): Promise<Asked<PushAnswer>> {
    return this.#ask('/api/sync/push', pushAnswerSchema, { entries });
  }

  /** Hands over what was not sent before this device was shut out. */
  handOver(entries: readonly Entry[]): Promise<Asked<unknown>> {
    return this.#ask('/api/sync/unsent', doneSchema, { entries });
  }

  /**
   * @param head The last own `seq`, and `hash` its hash: where the server has more, or another entry under
   * that number, there is a copy. @param mark What the server said stands at `after`; empty if it never did.
   */
  pull(after: number, head: number, hash: string, mark: string): Promise<Asked<PullAnswer>> {
    const query = `after=${String(after)}&head=${String(head)}&hash=${hash}&mark=${mark}`;
    return this.#ask(`/api/sync/pull?${query}`, pullAnswerSchema);
  }

  /** Where a new device starts, page by page. */
  async start(): Promise<Asked<StartAnswer>> {
    const rows: Record<string, Record<string, unknown>[]> = {};
    let begins: StartPage['begins'];
    let from = '';
    for (;;) {
      const asked = await this.#ask(`/api/sync/start${from}`, startPageSchema);
      if (asked.came !== 'answer') return asked;
      const { answer } = asked;
      begins ??= answer.begins;
      for (const [table, found] of Object.entries(answer.rows)) (rows[table] ??= []).push(...found);
      if (answer.next === null) break;
      from = `?from=${encodeURIComponent(JSON.stringify(answer.next))}`;
    }
    return begins === undefined
      ? { came: 'nothing' }
      : { came: 'answer', answer: { ...begins, rows } };
  }

  enrol(code: string, device: string): Promise<Asked<EnrolAnswer>> {
    return this.#ask('/api/enrol', enrolAnswerSchema, { code, device, token: this.token });
  }

  /** Any other route; the caller brings the shape of the answer. */
  ask<S extends z.ZodType>(path: string, schema: S, body?: unknown): Promise<Asked<z.infer<S>>> {
    return this.#ask(path, schema, body);
  }

  #ask<S extends z.ZodType>(path: string, schema: S, body?: unknown): Promise<Asked<z.infer<S>>> {
    const headers = { authorization: `Bearer ${this.token}` };
    return askServer(
      { path, headers, ...(body === undefined ? {} : { body }) },
      schema,
      this.fetching,
    );
  }
}

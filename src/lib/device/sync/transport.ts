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
import { PortionSize } from './portion';

export type { Asked };

/** Milliseconds: what a device starts with is put together out of all books. */
const START_PATIENCE = 60_000;
/** How often a page of the start is asked for, and the milliseconds before the second time. */
const PAGE_TRIES = 4;
const PAGE_PAUSE = 1000;

export class Transport {
  readonly portion = new PortionSize();

  constructor(
    readonly token: string,
    readonly fetching: typeof fetch = (...args) => fetch(...args),
  ) {}

  async push(entries: readonly Entry[]): Promise<Asked<PushAnswer>> {
    const asked = await this.#ask('/api/sync/push', pushAnswerSchema, { entries });
    this.portion.hear(asked.came, entries.length);
    return asked;
  }

  /** Hands over what was not sent before this device was shut out. */
  async handOver(entries: readonly Entry[]): Promise<Asked<unknown>> {
    const asked = await this.#ask('/api/sync/unsent', doneSchema, { entries });
    this.portion.hear(asked.came, entries.length);
    return asked;
  }

  /**
   * @param head The last own `seq`, and `hash` its hash: where the server has more, or another entry under
   * that number, there is a copy. @param mark What the server said stands at `after`; empty if it never did.
   */
  pull(after: number, head: number, hash: string, mark: string): Promise<Asked<PullAnswer>> {
    const query = `after=${String(after)}&head=${String(head)}&hash=${hash}&mark=${mark}`;
    return this.#ask(`/api/sync/pull?${query}`, pullAnswerSchema);
  }

  /** Where a new device starts, page by page; one that does not come is asked for again. */
  async start(): Promise<Asked<StartAnswer>> {
    const rows: Record<string, Record<string, unknown>[]> = {};
    let begins: StartPage['begins'];
    let from = '';
    for (;;) {
      const asked = await this.#startPage(from);
      if (asked.came !== 'answer') return asked;
      const { answer } = asked;
      begins ??= answer.begins;
      for (const [table, found] of Object.entries(answer.rows)) (rows[table] ??= []).push(...found);
      if (answer.next === null) break;
      from = `?from=${encodeURIComponent(JSON.stringify(answer.next))}`;
    }
    return begins === undefined
      ? { came: 'nothing', why: 'unclear' }
      : { came: 'answer', answer: { ...begins, rows } };
  }

  async #startPage(from: string): Promise<Asked<StartPage>> {
    for (let tries = 1, pause = PAGE_PAUSE; ; tries += 1, pause *= 2) {
      const path = `/api/sync/start${from}`;
      const asked = await this.#ask(path, startPageSchema, undefined, START_PATIENCE);
      if (asked.came !== 'nothing' || tries >= PAGE_TRIES) return asked;
      await new Promise((resolve) => setTimeout(resolve, pause));
    }
  }

  enrol(code: string, device: string): Promise<Asked<EnrolAnswer>> {
    return this.#ask('/api/enrol', enrolAnswerSchema, { code, device, token: this.token });
  }

  /** Any other route; the caller brings the shape of the answer. */
  ask<S extends z.ZodType>(path: string, schema: S, body?: unknown): Promise<Asked<z.infer<S>>> {
    return this.#ask(path, schema, body);
  }

  #ask<S extends z.ZodType>(
    path: string,
    schema: S,
    body?: unknown,
    patience?: number,
  ): Promise<Asked<z.infer<S>>> {
    const headers = { authorization: `Bearer ${this.token}` };
    const given = body === undefined ? {} : { body };
    const waits = patience === undefined ? {} : { patience };
    return askServer({ path, headers, ...given, ...waits }, schema, this.fetching);
  }
}

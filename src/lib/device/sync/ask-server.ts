/**
 * One request to our own server: every answer is checked, every outcome returned. What ends the waiting is
 * silence, never the length of an answer: over a weak network a long one takes minutes, and comes.
 */
import type { z } from 'zod';
import { refusalSchema, type Refusal } from '../../core/daybook/sync-messages';

/** No answer to the question. */
export type NotAnswered = Exclude<Asked<unknown>, { came: 'answer' }>;
/** What a screen has instead of what only the server knows. */
export interface Away {
  readonly is: 'away';
  readonly asked: NotAnswered;
}

/** What came of asking. `nothing`: there is no telling whether the server did it. */
export type Asked<T> =
  | { readonly came: 'answer'; readonly answer: T }
  | { readonly came: 'refusal'; readonly status: number; readonly refusal: Refusal }
  | NoAnswer;

/**
 * `silence`: nobody was reached, or what came broke off. `unclear`: something came that is no answer to this question, as
 * of a network that wants a sign-in of its own first. `not now`: the server is there and cannot, and says why.
 */
export type NoAnswer =
  | { readonly came: 'nothing'; readonly why: 'silence' | 'unclear' }
  | { readonly came: 'nothing'; readonly why: 'not now'; readonly says: string };

/** Milliseconds without a byte after which there is no answer. */
const PATIENCE = 15_000;
/** What silence is counted in: a page that was frozen, or whose machine stood still, has not listened meanwhile. */
const PARTS = 3;
/** Milliseconds until what comes to nothing at once is asked again, if it may be. */
const PAUSES = [300, 1200];

export interface Question {
  readonly path: string;
  readonly method?: 'GET' | 'POST' | 'DELETE';
  readonly body?: unknown;
  readonly headers?: Readonly<Record<string, string>>;
  /** Milliseconds without a byte after which there is no answer. */
  readonly patience?: number;
  /** Asked twice it does what it does once: it is asked again when a network lost it. */
  readonly isHarmless?: boolean;
}

export async function askServer<S extends z.ZodType>(
  question: Question,
  schema: S,
  fetching: typeof fetch = (...args) => fetch(...args),
): Promise<Asked<z.infer<S>>> {
  const began = performance.now();
  for (const pause of question.isHarmless === true ? PAUSES : []) {
    const asked = await askOnce(question, schema, fetching);
    // Whoever has waited for so long in vain is told.
    if (asked.came !== 'nothing' || performance.now() - began >= PATIENCE) return asked;
    await new Promise((resolve) => setTimeout(resolve, pause));
  }
  return await askOnce(question, schema, fetching);
}

async function askOnce<S extends z.ZodType>(
  question: Question,
  schema: S,
  fetching: typeof fetch,
): Promise<Asked<z.infer<S>>> {
  const { path, body, method = body === undefined ? 'GET' : 'POST', headers = {} } = question;
  let response: Response;
  let text: string;
  const silence = new Silence(question.patience ?? PATIENCE);
  try {
    response = await fetching(path, {
      method,
      headers: {
        ...headers,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      signal: silence.signal,
      cache: 'no-store',
    });
    text = await textOf(response, silence);
  } catch {
    return { came: 'nothing', why: 'silence' };
  } finally {
    silence.end();
  }
  const value = valueOf(text);
  const answer = schema.safeParse(value);
  if (response.ok && answer.success) return { came: 'answer', answer: answer.data };
  const refusal = refusalSchema.safeParse(value);
  if (refusal.success && response.status < 500) {
    return { came: 'refusal', status: response.status, refusal: refusal.data };
  }
  // A push that was refused in part answers so, with what was taken.
  if (answer.success) return { came: 'answer', answer: answer.data };
  // The server is not well, or something between us and it answered: try later.
  if (refusal.success) return { came: 'nothing', why: 'not now', says: refusal.data.message };
  return { came: 'nothing', why: 'unclear' };
}

/** What a text says as JSON; nothing that fits any question where it is none. */
function valueOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** Gives up once nothing has been heard for so many milliseconds. */
class Silence {
  readonly #giveUp = new AbortController();
  readonly signal = this.#giveUp.signal;
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor(readonly patience: number) {
    this.heard();
  }

  heard(): void {
    this.end();
    this.#listen(PARTS);
  }

  #listen(parts: number): void {
    this.#timer = setTimeout(() => {
      if (parts > 1) this.#listen(parts - 1);
      else this.#giveUp.abort();
    }, this.patience / PARTS);
  }

  end(): void {
    clearTimeout(this.#timer);
  }
}

/** A whole body, however slowly it comes, as long as it comes. */
async function textOf({ body }: Response, silence: Silence): Promise<string> {
  silence.heard();
  const reader = body?.getReader();
  const decoder = new TextDecoder();
  let text = '';
  for (;;) {
    const part = await reader?.read();
    if (part === undefined || part.done) return text + decoder.decode();
    silence.heard();
    text += decoder.decode(part.value, { stream: true });
  }
}

/** Reading what strangers send: bounded, checked, and refused with a reason. */
import type { z } from 'zod';
import { firstIssue } from '../../core/daybook/read-entry';
import { LARGEST_BODY } from '../../core/daybook/sync-messages';
import { refused } from './answers';

export type BodyRead<T> =
  | { readonly ok: true; readonly body: T }
  | { readonly ok: false; readonly response: Response };

/** Reads a JSON body of a known shape. Nothing else is thrown or logged of it. */
export async function readBody<S extends z.ZodType>(
  request: Request,
  schema: S,
): Promise<BodyRead<z.infer<S>>> {
  const announced = Number(request.headers.get('content-length') ?? 0);
  if (announced > LARGEST_BODY) return tooLarge();
  const type = request.headers.get('content-type') ?? '';
  if (!type.startsWith('application/json')) {
    return no(refused(415, 'body/other-type'));
  }
  let text: string;
  try {
    text = await request.text();
  } catch {
    // The adapter cuts a body off that grows beyond the limit.
    return tooLarge();
  }
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return no(refused(400, 'body/not-json'));
  }
  try {
    const read = schema.safeParse(value);
    if (read.success) return { ok: true, body: read.data };
    const { where, why } = firstIssue(read.error);
    return no(refused(422, 'body/wrong', where, why));
  } catch {
    return no(refused(422, 'body/wrong', '(the whole)', 'it is nested deeper than can be read.'));
  }
}

const tooLarge = () => no(refused(413, 'body/too-large', LARGEST_BODY));

const no = (response: Response) => ({ ok: false, response }) as const;

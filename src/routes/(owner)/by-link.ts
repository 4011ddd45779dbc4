/** What a letter's link lets somebody do: asked of the server with the token that is in it. */
import type { z } from 'zod';
import { askServer } from '$lib/device/sync/ask-server';
import { wrongOf } from '$lib/ui/words/answer-words';

/** Behind the #, so that it is in no log on its way. */
export const tokenOfLink = (): string => location.hash.slice(1);

/** @returns What the server answered, or what is wrong in words. */
export async function askByLink<S extends z.ZodType>(
  path: string,
  body: Readonly<Record<string, unknown>>,
  schema: S,
): Promise<{ readonly answer: z.infer<S> } | { readonly wrong: string }> {
  const asked = await askServer({ path, body }, schema);
  if (asked.came === 'answer') return { answer: asked.answer };
  const isCut = asked.came === 'refusal' && asked.refusal.code === 'body/wrong';
  return { wrong: isCut ? 'This is not the whole link; open it from the letter.' : wrongOf(asked) };
}

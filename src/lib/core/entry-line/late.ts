/** What was entered before there was anything to understand it by: done in its order, once there is. */

/** What became of one: it is done, the seller is shown what to say first, or neither. */
export type Outcome = 'done' | 'asked' | 'not done';

export interface Late {
  /** What was typed; null for a key that was pressed. */
  readonly text: string | null;
  readonly does: () => Outcome | Promise<Outcome>;
}

/**
 * Behind something that is not done goods still go on the slip, but no key does anything: nothing is paid for, nor set
 * aside, while a part of it is not on the slip. What comes behind such a key was for another slip, and is not done.
 * @param next Takes the next one from what is waiting; more may come meanwhile.
 * @returns What was typed and not done, in its order, for the seller to hear of.
 */
export async function doLate(next: () => Late | undefined): Promise<readonly string[]> {
  const left: string[] = [];
  let isHeld = false;
  let isOfAnother = false;
  for (let late = next(); late !== undefined; late = next()) {
    const { text, does } = late;
    if (text === null) {
      if (isHeld) isOfAnother = true;
      else await does();
      continue;
    }
    const outcome = isOfAnother ? 'not done' : await does();
    if (outcome !== 'done') isHeld = true;
    if (outcome === 'not done') left.push(text);
  }
  return left;
}

/** Setting a PIN, by oneself or for somebody who has none: a command. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import type { PinHash } from './pin';

export const setPin = (
  newId: () => string,
  person: string,
  pin: PinHash | null,
): { readonly ok: true; readonly drafts: readonly Draft[] } => ({
  ok: true,
  drafts: [draft('pin.set', newId(), null, { person, pin })],
});

/** What a device is called and given: a command. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';

export interface SetDevice {
  readonly newId: () => string;
  readonly device: Row<'devices'>;
  readonly name: string;
  readonly event: string | null;
  /** A drawer that is open, by the entry that opened it. */
  readonly drawer: string | null;
}

export type DeviceOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: { readonly code: 'device/no-name' } };

/** Its number never changes: sales are known by it. */
export function setDevice(command: SetDevice): DeviceOutcome {
  const { newId, event, drawer } = command;
  const { id, number } = command.device;
  const name = command.name.trim();
  if (name === '') return { ok: false, refusal: { code: 'device/no-name' } };
  const body = { id, name: name.slice(0, 80), number, event, drawer };
  return { ok: true, drafts: [draft('device.set', newId(), null, body)] };
}

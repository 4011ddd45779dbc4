/** Setting the open slip aside and taking another up, at this counter. */
import * as acts from '$lib/device/slip-acts';
import type { Stall } from '../stall.svelte';

export const deskOf = ({ daybook, slip, event }: Stall): acts.SlipDesk => ({
  daybook,
  slip,
  event: event?.id ?? null,
});

/** Sets the open slip aside, or puts it back; the counter is free when it returns `ok`. */
export const setAside = async (
  stall: Stall,
  name?: string,
  sort?: 'aside' | 'tab',
): Promise<acts.Kept> => await acts.setAside(deskOf(stall), name, sort);

/** Goes on with a kept slip; one that is open here is set aside first. */
export const takeUpSlip = async (stall: Stall, id: string): Promise<acts.Kept> =>
  await acts.takeUpSlip(deskOf(stall), id);

/** Moves a line of the open slip to another that is kept. */
export const moveLineTo = async (stall: Stall, line: string, to: string): Promise<acts.Kept> =>
  await acts.moveLineTo(deskOf(stall), line, to);

/** A slip that was taken up and left without paying is put back by itself. */
export async function putBack(stall: Stall): Promise<void> {
  if (stall.slip.current.kept !== undefined) await setAside(stall);
}

/** Asks again who is there. Whoever comes may be somebody else: what was taken up is put back first. */
export async function lockDevice(stall: Stall): Promise<void> {
  await putBack(stall);
  await stall.lock();
}

/** Setting the open slip aside and taking another up: on disk before the counter shows it. */
import {
  keepSlip,
  moveLine,
  openFrom,
  takeUp,
  throwAway,
  type KeepRefusal,
  type KeptSlip,
} from '$lib/core/set-aside/kept-slips';
import type { OpenLine } from '$lib/core/slip/open-slip';
import type { SlipGone } from '$lib/device/daybook';
import { newId } from '$lib/device/new-id';
import type { Stall } from '../stall.svelte';

export type Kept =
  | { readonly ok: true; readonly name: string }
  | { readonly ok: false; readonly refusal: KeepRefusal | SlipGone };

/**
 * Sets the open slip aside, or puts it back if it was before; the counter is free when it returns
 * `ok`. Without a name it keeps the one it had.
 */
export async function setAside(
  stall: Stall,
  name?: string,
  sort: 'aside' | 'tab' = stall.slip.current.kept?.sort ?? 'aside',
): Promise<Kept> {
  const { slip, db } = stall;
  await slip.saved();
  const open = slip.current;
  // Not the customer’s name: they are named by id, so that they can be forgotten.
  const called = name ?? open.kept?.name ?? '';
  const known = await db.books.slipLines.where('slip').equals(open.id).toArray();
  const event = stall.event?.id ?? null;
  const isEmptied = open.lines.length === 0 && sort === 'aside' && open.kept !== undefined;
  const isSaved = (await db.read('slip'))?.id === open.id;
  const outcome = await stall.daybook.append(
    () =>
      isEmptied
        ? throwAway(newId, event, open.id)
        : keepSlip({ newId, event, slip: open, sort, name: called, known }),
    isSaved ? { settles: open.id } : {},
  );
  if (!outcome.ok) return outcome;
  slip.startAfresh();
  return { ok: true, name: called === '' ? (open.customer?.name ?? '') : called };
}

/** Goes on with a kept slip; one that is open here is set aside first. */
export async function takeUpSlip(stall: Stall, kept: KeptSlip): Promise<Kept> {
  const { slip, db } = stall;
  if (slip.current.id === kept.row.id) return { ok: true, name: kept.row.name };
  if (!slip.isEmpty || slip.current.kept !== undefined) {
    const put = await setAside(stall);
    if (!put.ok) return put;
  }
  const customer = kept.row.customer;
  const row = customer === null ? undefined : await db.books.customers.get(customer);
  await stall.daybook.append(() => takeUp(newId, stall.event?.id ?? null, kept.row.id));
  slip.goOnWith(
    openFrom(
      kept,
      row === undefined ? undefined : { id: row.id, name: row.name, discount: row.discount },
    ),
  );
  await slip.saved();
  return { ok: true, name: kept.row.name };
}

/** Moves a line of the open slip to another that is kept; it is there before it is off here. */
export async function moveLineTo(stall: Stall, line: OpenLine, to: string): Promise<void> {
  await stall.daybook.append(() => moveLine(newId, stall.event?.id ?? null, line, to));
  stall.slip.remove(line.key);
}

/** A slip that was taken up and left without paying is put back by itself. */
export async function putBack(stall: Stall): Promise<void> {
  if (stall.slip.current.kept !== undefined) await setAside(stall);
}

/** Asks again who is there. Whoever comes may be somebody else: what was taken up is put back first. */
export async function lockDevice(stall: Stall): Promise<void> {
  await putBack(stall);
  await stall.lock();
}

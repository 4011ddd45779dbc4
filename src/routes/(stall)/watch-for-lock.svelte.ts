/** Locks a device that nobody has touched for as long as the vendor has set. */
import { isTimeToLock } from '$lib/core/people/auto-lock';
import { lockDevice, putBack } from './counter/keep-slip';
import type { Stall } from './stall.svelte';

const LOOK_EVERY = 5_000;
const LEFT_ALONE = 10 * 60_000;
/** How exactly the last touch is kept across a reload. */
const NOTE_EVERY = 20_000;

export function watchForLock(stall: Stall): void {
  let seenAt: number | null = null;
  let notedAt = 0;
  const touched = (): void => {
    seenAt = Date.now();
    if (seenAt - notedAt < NOTE_EVERY || stall.seller === undefined) return;
    notedAt = seenAt;
    void stall.choose({ seenAt });
  };
  const look = (): void => {
    if (!stall.isReady) return;
    const last = Math.max(seenAt ?? 0, stall.choices.seenAt ?? 0);
    // A slip that was taken up and left is put back for everybody to see.
    if (stall.slip.current.kept !== undefined && Date.now() - last > LEFT_ALONE)
      void putBack(stall);
    // Somebody without a PIN could not be asked for one.
    if (stall.seller?.pin == null) return;
    if (isTimeToLock(last, Date.now(), stall.business.lockAfter)) void lockDevice(stall);
  };
  $effect(() => {
    look();
    const timer = setInterval(look, LOOK_EVERY);
    const touches = ['pointerdown', 'keydown'] as const;
    for (const type of touches) addEventListener(type, touched, { capture: true, passive: true });
    return () => {
      clearInterval(timer);
      for (const type of touches) removeEventListener(type, touched, { capture: true });
    };
  });
}

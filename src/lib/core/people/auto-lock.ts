/**
 * Whether a device that nobody has touched must ask again who is there.
 * @param seenAt When somebody last touched it, and `now`, in milliseconds since 1970.
 * @param lockAfter Minutes that the vendor has set; 0 is never.
 */
export function isTimeToLock(seenAt: number, now: number, lockAfter: number): boolean {
  if (lockAfter <= 0) return false;
  // A clock that was set back tells nothing; locking is the safe side of it.
  return now - seenAt >= lockAfter * 60_000 || now < seenAt - 60_000;
}

let next: Promise<void> | null = null;

/**
 * Waits until what has just changed is on the screen; not for long if no frame is painted, since the
 * window may be hidden. Whoever asks before the same frame gets the same promise.
 */
export function painted(): Promise<void> {
  next ??= new Promise((resolve) => {
    const timer = setTimeout(end, 100);
    const frame = requestAnimationFrame(() => {
      next = null;
      clearTimeout(timer);
      setTimeout(resolve);
    });
    function end(): void {
      next = null;
      cancelAnimationFrame(frame);
      resolve();
    }
  });
  return next;
}

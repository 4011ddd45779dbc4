/** Whoever goes to another page while something is being written stays there. */
import { page } from '$app/state';

/** Asked when something begins. @returns Says later whether it is still the same page that is shown. */
export function stillHere(): () => boolean {
  const here = page.url.pathname;
  return () => page.url.pathname === here;
}

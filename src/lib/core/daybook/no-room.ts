/** Whether a browser had no room to write something: its own name for it, or what its disk says. */
export const isNoRoom = (error: unknown): boolean =>
  error instanceof Error &&
  /quota|no space|disk.*full|full disk/i.test(`${error.name} ${error.message}`);

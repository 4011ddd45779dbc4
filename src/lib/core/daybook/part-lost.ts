/** A part of the application that did not come over the network, or died: whoever waits for it must not wait for ever. */
export class PartLostError extends Error {
  constructor() {
    super('a part of the application did not come over the network');
    this.name = 'PartLostError';
  }
}

/** As browsers say it of a script, and the build of its styles. */
const SAID = /dynamically imported module|importing a module script failed|unable to preload css/i;

/** Whether something failed only since a part of the application did not come. */
export const isPartLost = (error: unknown): boolean =>
  error instanceof PartLostError || (error instanceof Error && SAID.test(error.message));

import type { OwnerHere } from '$lib/server/access/accounts';
import type { KnownDevice } from '$lib/server/access/enrolment';

declare global {
  namespace App {
    interface Error {
      message: string;
      /** A part of the application did not come over the network. */
      isPartLost?: boolean;
    }
    interface Locals {
      /** Set on the routes that are for devices; `hooks.server.ts` turns everybody else away. */
      device: KnownDevice;
      /** Set on the routes that are for owners. */
      owner: OwnerHere;
      /** Set when the database did not answer while this was worked on. */
      isDatabaseAway?: boolean;
    }
  }
}

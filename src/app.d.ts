import type { KnownDevice } from '$lib/server/access/enrolment';

declare global {
  namespace App {
    interface Locals {
      /** Set on every server route but those that are open. */
      device: KnownDevice;
    }
  }
}

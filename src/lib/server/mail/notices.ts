/** Telling owners by mail of a change to how they sign in, in case it was not them. */
import { log, services } from '../services';
import { noticeLetter, type Notice } from '../words/letters';

/** Does not hold the answer up: the change has been made, whether or not a letter can be sent. */
export function tellOwner(email: string, notice: Notice, origin: string): void {
  services()
    .mailer?.send({ to: email, ...noticeLetter(notice, origin) })
    .catch((error: unknown) => {
      log.error({ name: error instanceof Error ? error.name : 'unknown' }, 'a letter was not sent');
    });
}

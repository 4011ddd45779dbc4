/** Telling owners by mail of a change to how they sign in, in case it was not them. */
import { log, services } from '../services';

export type Notice = 'passkey added' | 'password set' | 'device code';

const subjects: Readonly<Record<Notice, string>> = {
  'passkey added': 'A passkey was added to your Stall Till account',
  'password set': 'Your Stall Till password was changed',
  'device code': 'A device is being added to your Stall Till',
};
const bodies: Readonly<Record<Notice, string>> = {
  'passkey added': 'A passkey was added to your account just now; it can sign in as you.',
  'password set': 'The password of your account was changed just now.',
  'device code':
    'A link was made just now that makes one more browser a till of yours. It is good for a quarter of an hour.',
};

/** Does not hold the answer up: the change has been made, whether or not a letter can be sent. */
export function tellOwner(email: string, notice: Notice, origin: string): void {
  const text = [
    bodies[notice],
    '',
    `If it was you, leave this letter. If not, set another password at ${origin}/forgot`,
    `and look at ${origin}/account for passkeys and sessions that are not yours.`,
  ].join('\n');
  services()
    .mailer?.send({ to: email, subject: subjects[notice], text })
    .catch((error: unknown) => {
      log.error({ name: error instanceof Error ? error.name : 'unknown' }, 'a letter was not sent');
    });
}

/** The letter by which an owner shows that an address is theirs. */
import { beginVerification } from '../access/verification';
import { log, services } from '../services';
import { verificationLetter } from '../words/letters';

/** Does not hold the answer up. @param origin The address of our own pages. */
export function sendVerification(owner: string, email: string, origin: string): void {
  const send = async (): Promise<void> => {
    const { database, mailer } = services();
    if (mailer === null) return;
    const token = await beginVerification(database, owner, Date.now());
    await mailer.send({ to: email, ...verificationLetter(token, origin) });
  };
  send().catch((error: unknown) => {
    log.error({ name: error instanceof Error ? error.name : 'unknown' }, 'a letter was not sent');
  });
}

/** The letter by which an owner shows that an address is theirs. */
import { beginVerification } from '../access/verification';
import { log, services } from '../services';

/** Does not hold the answer up. @param origin The address of our own pages. */
export function sendVerification(owner: string, email: string, origin: string): void {
  const send = async (): Promise<void> => {
    const { database, mailer } = services();
    if (mailer === null) return;
    const token = await beginVerification(database, owner, Date.now());
    await mailer.send({
      to: email,
      subject: 'Is this address yours?',
      text: [
        'Somebody, we hope you, began a stall with this address.',
        '',
        `If it was you, open this within two days: ${origin}/verify#${token}`,
        '',
        'Until then your till works, but sends no receipts. If it was not you, leave this letter.',
      ].join('\n'),
    });
  };
  send().catch((error: unknown) => {
    log.error({ name: error instanceof Error ? error.name : 'unknown' }, 'a letter was not sent');
  });
}

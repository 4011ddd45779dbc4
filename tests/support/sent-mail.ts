/** Mail that goes nowhere, for the server tests: what would have gone out, or nobody who takes it. */
import type { Mail } from '../../src/lib/server/mail/mailer';

export class SentMail {
  readonly sent: Mail[] = [];
  /** Nobody takes any meanwhile. */
  isDown = false;

  readonly mailer = {
    send: (mail: Mail): Promise<void> => {
      if (this.isDown) return Promise.reject(new Error('nobody there'));
      this.sent.push(mail);
      return Promise.resolve();
    },
    close: (): void => undefined,
  };
}

export interface Letter {
  readonly subject: string;
  readonly text: string;
}

/** A letter begun in whatever program the device writes mails with (RFC 6068). */
export const mailAddress = (email: string, { subject, text }: Letter): string =>
  `mailto:${encodeURIComponent(email)}?subject=${encodeURIComponent(subject)}&body=${encodeURIComponent(text)}`;

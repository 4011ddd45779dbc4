/** What a maker's statement says. */

interface MailedStatement {
  readonly business: string;
  readonly event: string;
  readonly days: string;
  /** One line of text each: what was sold, what came back. */
  readonly lines: readonly string[];
  readonly figures: readonly string[];
}

export const makerMail = ({ business, event, days, lines, figures }: MailedStatement) => ({
  subject: `Your goods at ${event}, ${days}`,
  text: [
    `This is what your goods brought at ${event}, ${days}; amounts are without tax.`,
    '',
    ...lines,
    '',
    ...figures,
    '',
    business,
  ].join('\r\n'),
});

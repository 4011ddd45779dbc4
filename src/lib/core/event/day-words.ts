/** A day as people say it, on a screen, on paper and in a letter. */

/** Made once for each way of writing: making one takes longer than a hundred uses of it. */
const formats = new Map<string, Intl.DateTimeFormat>();
export function formatOf(locale: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = `${locale} ${JSON.stringify(options)}`;
  let format = formats.get(key);
  if (format === undefined) {
    format = new Intl.DateTimeFormat(locale, options);
    formats.set(key, format);
  }
  return format;
}

/** @example dayWords('2026-11-22', 'en-GB') // => 'Sunday 22 November' */
export const dayWords = (day: string, locale: string): string =>
  formatOf(locale, {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    timeZone: 'UTC',
  }).format(Date.parse(`${day}T00:00:00Z`));

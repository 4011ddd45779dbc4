/** Patterns of text. */

/** Accents and capitals make no difference. */
export const LIKE = 'COLLATE utf8mb4_unicode_ci LIKE';

/** Part of a pattern that stands for itself. */
export const plainly = (text: string): string => text.replace(/[\\%_]/g, '\\$&');

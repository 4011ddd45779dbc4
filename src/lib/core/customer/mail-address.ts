import { z } from 'zod';

/** Whether mail can be addressed so. */
export const isMail = (typed: string): boolean => z.email().max(254).safeParse(typed).success;

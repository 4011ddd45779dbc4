import { LONGEST_PASSWORD, SHORTEST_PASSWORD, type PasswordRefusal } from '../access/passwords';

export const passwordWords: Readonly<Record<PasswordRefusal['code'], string>> = {
  'password/too-short': `A password has at least ${String(SHORTEST_PASSWORD)} characters; three words of your own make a good one.`,
  'password/too-long': `A password has at most ${String(LONGEST_PASSWORD)} characters.`,
  'password/common': 'Many people use this password, or it is easily guessed; take another one.',
};

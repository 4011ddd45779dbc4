import type { PasskeyRefusal } from '../access/passkeys';
import { refused } from './answers';

const words: Readonly<Record<PasskeyRefusal['code'], string>> = {
  'passkey/wrong': 'That passkey did not show what was asked, or too late. Try once more.',
  'passkey/unknown': 'Nobody here has that passkey; sign in with e-mail and password.',
  'passkey/known': 'That passkey is here already.',
  'passkey/too-many': 'There are twenty passkeys already; remove one first.',
  'passkey/copied':
    'That passkey has been copied and is not taken any more. Sign in with the password and remove it.',
};

export const passkeyRefused = ({ code }: PasskeyRefusal): Response =>
  refused(code === 'passkey/known' || code === 'passkey/too-many' ? 409 : 401, {
    code,
    message: words[code],
  });

import type { PasskeyRefusal } from '../access/passkeys';
import { refused } from './answers';

export const passkeyRefused = ({ code }: PasskeyRefusal): Response =>
  refused(code === 'passkey/known' || code === 'passkey/too-many' ? 409 : 401, code);

/** Digests of anything that JSON can say. */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';

/** SHA-256 over the canonical JSON (RFC 8785) of any value. */
export const digestOf = (value: unknown): string =>
  bytesToHex(sha256(utf8ToBytes(canonicalize(value) ?? 'null')));

/** The address of our own pages: links in letters are made of it, and it is what other sites are told from. */
import { Stop } from './say.mjs';

/** @param {string} host */
export const isLoopback = (host) => /^(127(\.\d+){3}|::1|localhost)$/.test(host);

/**
 * ORIGIN as it is set; without it, this machine by name. Beyond this machine it must be set: otherwise it
 * would be taken from the Host header, which whoever asks can choose.
 * @param {{ host: string, port: number | string, isTls: boolean, origin?: string | undefined }} from
 * @throws {Stop} If it must be set and is not.
 */
export function originOf({ host, port, isTls, origin }) {
  if (origin) return origin;
  if (!isLoopback(host)) {
    throw new Stop(
      `ORIGIN is not set. Whoever serves beyond this machine (HOST is ${host}) must name the address ` +
        'that people type, such as ORIGIN=https://till.example.',
    );
  }
  // By name: passkeys belong to a host's name, and an address of figures is none.
  return `${isTls ? 'https' : 'http'}://localhost:${port}`;
}

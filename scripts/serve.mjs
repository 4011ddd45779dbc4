/**
 * Serves a build: over TLS when certificate files are named, with the security headers on every
 * answer, pages that were made ahead included.
 *
 *   node scripts/serve.mjs [BUILD]
 *
 * HOST, PORT, ORIGIN as the build asks for them; beyond this machine ORIGIN must be set. TLS_CERT and TLS_KEY name PEM files.
 */
import { readFileSync } from 'node:fs';
import http from 'node:http';
import https from 'node:https';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { originOf } from './setup/origin.mjs';
import { HEADERS, headersWithTls } from './setup/security-headers.mjs';

const build = resolve(process.argv[2] ?? 'build');
const {
  HOST = '127.0.0.1',
  PORT = '4180',
  TLS_CERT,
  TLS_KEY,
  SHUTDOWN_TIMEOUT = '5',
} = process.env;
const isTls = TLS_CERT !== undefined && TLS_KEY !== undefined;
try {
  // The build reads it when it is loaded.
  process.env.ORIGIN = originOf({ host: HOST, port: PORT, isTls, origin: process.env.ORIGIN });
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error));
  process.exit(2);
}
/** @type {{ handler: (request: http.IncomingMessage, response: http.ServerResponse) => void }} */
const { handler } = await import(pathToFileURL(`${build}/handler.js`).href);

const headers = Object.entries(isTls ? headersWithTls : HEADERS);

/** @type {http.RequestListener} */
const listener = (request, response) => {
  for (const [name, value] of headers) response.setHeader(name, value);
  handler(request, response);
};
const server = isTls
  ? https.createServer({ cert: readFileSync(TLS_CERT), key: readFileSync(TLS_KEY) }, listener)
  : http.createServer(listener);
// A client that sends its headers or its body drop by drop is let go of.
server.headersTimeout = 20_000;
server.requestTimeout = 60_000;
// A phone's connection stays between two sales: another costs a weak network several round trips, and one that is
// closed just when the next question is on its way loses that.
server.keepAliveTimeout = 75_000;

server.listen(Number(PORT), HOST, () =>
  console.log(`Listening on ${isTls ? 'https' : 'http'}://${HOST}:${PORT}`),
);

let isStopping = false;
/** @param {string} why */
function stop(why) {
  if (isStopping) return;
  isStopping = true;
  server.close(() =>
    process.emit(/** @type {any} */ ('sveltekit:shutdown'), /** @type {any} */ (why)),
  );
  server.closeIdleConnections();
  setTimeout(() => server.closeAllConnections(), Number(SHUTDOWN_TIMEOUT) * 1000).unref();
}
for (const signal of ['SIGTERM', 'SIGINT']) process.on(signal, () => stop(signal));

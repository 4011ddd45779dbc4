/**
 * Stands in for an acquirer: a separate process with an HTTP interface of its own, its own small
 * file, and faults on command. No money moves. See README.md beside this file.
 */
import {
  appendFileSync,
  existsSync,
  mkdirSync,
  openSync,
  fsyncSync,
  closeSync,
  readFileSync,
} from 'node:fs';
import http from 'node:http';
import { dirname } from 'node:path';
import { randomInt, randomUUID, webcrypto } from 'node:crypto';
import { Cards } from './cards.mjs';
import { Payments } from './payments.mjs';
import { voiceDesk } from './voice-desk.mjs';

const { subtle } = webcrypto;
const BUSY = { status: 429, code: 'busy', message: 'too many requests' };
const NO_FAULTS = { of: '', hold: false, dropBefore: 0, dropAfter: 0, refuse: 0, refusal: BUSY };

/**
 * @param {{ port: number, apiKey: string, file: string }} options `file` keeps the payments.
 */
export async function startAcquirer({ port, apiKey, file }) {
  mkdirSync(dirname(file), { recursive: true });
  const keys = await ownKeys();
  let faults = NO_FAULTS;
  /** What is done for those that are held, in the order in which they came. @type {(() => void)[]} */
  const waiting = [];
  const payments = new Payments({
    now: Date.now,
    newId: randomUUID,
    code: (digits) => String(randomInt(10 ** (digits - 1), 10 ** digits)),
    keep: write,
  });
  const cards = new Cards({ newToken: () => `tok_${randomUUID()}`, write });
  for (const line of linesOf(file)) {
    const known = JSON.parse(line);
    if (known.kept) cards.all.set(known.kept.customer, known.kept);
    else if (known.forgotten) cards.all.delete(known.forgotten);
    else if (!known.keys) payments.all.set(known.reference, known);
  }

  /** On disk before anybody hears of it. @param {object} entry */
  function write(entry) {
    appendFileSync(file, `${JSON.stringify(entry)}\n`);
    const handle = openSync(file, 'r+');
    fsyncSync(handle);
    closeSync(handle);
  }
  /** Its keys outlive it, or what was sealed before a restart could never be opened. */
  async function ownKeys() {
    const known = linesOf(file)
      .filter((line) => line.startsWith('{"keys"'))
      .map((line) => JSON.parse(line).keys)[0];
    const algorithm = { name: 'RSA-OAEP', hash: 'SHA-256' };
    if (known)
      return {
        publicKey: known.publicKey,
        privateKey: await subtle.importKey('jwk', known.privateKey, algorithm, false, ['decrypt']),
      };
    const pair = await subtle.generateKey(
      { ...algorithm, modulusLength: 2048, publicExponent: new Uint8Array([1, 0, 1]) },
      true,
      ['encrypt', 'decrypt'],
    );
    const publicKey = await subtle.exportKey('jwk', pair.publicKey);
    write({ keys: { publicKey, privateKey: await subtle.exportKey('jwk', pair.privateKey) } });
    return { publicKey, privateKey: pair.privateKey };
  }

  /** What the reader or the browser sealed, or null if it is not ours. @param {string} sealed */
  async function open(sealed) {
    try {
      const bytes = Buffer.from(sealed, 'base64');
      const text = await subtle.decrypt({ name: 'RSA-OAEP' }, keys.privateKey, bytes);
      return JSON.parse(Buffer.from(text).toString('utf8'));
    } catch {
      return null;
    }
  }

  const server = http.createServer((request, response) => {
    void answer(request, response).catch(() => response.destroy());
  });

  /** @param {http.IncomingMessage} request @param {http.ServerResponse} response */
  async function answer(request, response) {
    const url = new URL(request.url ?? '/', 'http://localhost');
    const what = `${request.method} ${url.pathname}`;
    let text = '';
    for await (const part of request) text += part;
    if (url.pathname === '/voice') {
      const code = request.method === 'POST' ? payments.voice().body.code : null;
      response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' });
      return response.end(voiceDesk(code));
    }
    if (request.headers.authorization !== `Bearer ${apiKey}`)
      return send(response, 401, { code: 'key', message: 'the API key is not known' });
    const body = text === '' ? {} : JSON.parse(text);
    if (what === 'POST /faults') {
      faults = { ...faults, ...body };
      if (!faults.hold) for (const goOn of waiting.splice(0)) goOn();
      return send(response, 200, faults);
    }
    const isMeant = faults.of === '' || faults.of === what;
    const fault = isMeant ? { ...faults } : NO_FAULTS;
    if (fault.refuse > 0) {
      faults.refuse -= 1;
      const { status, ...said } = faults.refusal;
      return send(response, status, said);
    }
    if (fault.dropBefore > 0) faults.dropBefore -= 1;
    else if (fault.dropAfter > 0) faults.dropAfter -= 1;
    if (fault.hold) await new Promise((resolve) => waiting.push(() => resolve(undefined)));
    // Nothing has happened, and nobody is told.
    if (fault.dropBefore > 0) return response.destroy();
    const done = await act(what, body, url);
    // It has happened, and nobody is told.
    if (fault.dropBefore === 0 && fault.dropAfter > 0) return response.destroy();
    if (typeof done.body === 'string') {
      response.writeHead(done.status, { 'content-type': 'text/csv; charset=utf-8' });
      return response.end(done.body);
    }
    send(response, done.status, done.body);
  }

  /**
   * @param {string} what @param {any} body @param {URL} url
   * @returns {Promise<{ status: number, body: object | string }>}
   */
  async function act(what, body, url) {
    switch (what) {
      case 'GET /key':
        return { status: 200, body: { key: keys.publicKey, isPractice: true } };
      case 'POST /payments': {
        const { token = '', sealed } = body;
        return token === ''
          ? payments.authorise(body, await open(String(sealed)))
          : payments.authorise(body, cards.find(token), 'that card is no longer on file');
      }
      case 'POST /cards':
        return cards.keep(String(body.customer), await open(String(body.sealed)));
      case 'POST /cards/forget':
        return cards.forget(String(body.customer));
      case 'GET /payments':
        return payments.find(url.searchParams.get('reference') ?? '');
      case 'POST /cancel':
        return payments.cancel(body.reference);
      case 'POST /capture':
        return payments.capture(body.reference, body.amount);
      case 'POST /release':
        return payments.release(body.reference);
      case 'POST /refund':
        return payments.refund(body.reference, String(body.refund), body.amount);
      case 'POST /credit':
        return payments.credit(body, await open(String(body.sealed)));
      case 'POST /dispute':
        return payments.dispute(body.reference);
      case 'POST /decline':
        return payments.declineLate(body.reference);
      case 'GET /report':
        return { status: 200, body: payments.report(url.searchParams.get('day') ?? '') };
      case 'GET /settlement':
        return { status: 200, body: payments.settlement(url.searchParams.get('day') ?? '') };
      default:
        return { status: 404, body: { code: 'nowhere', message: 'there is nothing here' } };
    }
  }

  await new Promise((resolve) => server.listen(port, '127.0.0.1', () => resolve(undefined)));
  return {
    url: `http://127.0.0.1:${port}`,
    apiKey,
    payments: payments.all,
    stop: async () => {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(() => resolve(undefined)));
    },
  };
}

/** @param {string} file */
const linesOf = (file) =>
  existsSync(file)
    ? readFileSync(file, 'utf8')
        .split('\n')
        .filter((line) => line !== '')
    : [];

/** @param {http.ServerResponse} response @param {number} status @param {object} body */
function send(response, status, body) {
  response.writeHead(status, { 'content-type': 'application/json' });
  response.end(JSON.stringify(body));
}

if (process.argv[1]?.endsWith('acquirer.mjs')) {
  const [, , port = '0', apiKey = 'practice', file = '.data/acquirer.ndjson', ends] = process.argv;
  const { url } = await startAcquirer({ port: Number(port), apiKey, file });
  console.log(url);
  // Whoever started it holds its input open, and may be killed without a word.
  if (ends === '--while-input')
    process.stdin
      .resume()
      .once('end', () => process.exit(0))
      .once('close', () => process.exit(0));
}

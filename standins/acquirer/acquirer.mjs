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
import { randomUUID, webcrypto } from 'node:crypto';

const { subtle } = webcrypto;
const FEE_RATE = 175; // hundredths of a percent
const FEE_FIXED = 5; // minor units
const HOLD_DAYS = 7;

/**
 * @typedef {'captured' | 'authorised' | 'declined' | 'cancelled' | 'reversed' | 'released'} State
 * @typedef {object} Payment
 * @property {string} id
 * @property {string} reference Chosen by whoever asks; the same one is the same payment for ever.
 * @property {State} state
 * @property {number} asked Minor units.
 * @property {number} amount Minor units that were approved, taken or held.
 * @property {number} refunded Minor units.
 * @property {string} currency
 * @property {string} approval
 * @property {string} reason
 * @property {string} scheme
 * @property {string} last4
 * @property {string} at ISO 8601
 * @property {string} expires ISO 8601, for what is only held.
 */

/**
 * @param {{ port: number, apiKey: string, file: string }} options `file` keeps the payments.
 */
export async function startAcquirer({ port, apiKey, file }) {
  mkdirSync(dirname(file), { recursive: true });
  /** @type {Map<string, Payment>} */
  const payments = new Map();
  const keys = await ownKeys();
  let faults = { latency: 0, dropBefore: 0, dropAfter: 0 };
  const voiceCodes = new Set();

  if (existsSync(file))
    for (const line of readFileSync(file, 'utf8').split('\n'))
      if (line !== '') {
        const entry = JSON.parse(line);
        if (entry.keys) continue;
        payments.set(entry.reference, entry);
      }

  /** On disk before anybody hears of it. @param {object} entry */
  function write(entry) {
    appendFileSync(file, `${JSON.stringify(entry)}\n`);
    const handle = openSync(file, 'r+');
    fsyncSync(handle);
    closeSync(handle);
  }
  /** @param {Payment} payment */
  function keep(payment) {
    payments.set(payment.reference, payment);
    write(payment);
    return payment;
  }

  /** Its keys outlive it, or what was sealed before a restart could never be opened. */
  async function ownKeys() {
    const known = existsSync(file)
      ? readFileSync(file, 'utf8')
          .split('\n')
          .filter((line) => line.startsWith('{"keys"'))
          .map((line) => JSON.parse(line).keys)[0]
      : undefined;
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

  /** @param {any} body */
  async function authorise(body) {
    const { reference, amount, currency, sealed, capture = true, voice = '' } = body;
    if (typeof reference !== 'string' || !Number.isSafeInteger(amount) || amount <= 0)
      return { status: 422, body: { code: 'wrong', message: 'reference and amount are needed' } };
    const known = payments.get(reference);
    if (known) {
      const isSame =
        known.state === 'cancelled' || (known.asked === amount && known.currency === currency);
      return isSame
        ? { status: 200, body: known }
        : { status: 409, body: { code: 'other', message: 'that reference is of another payment' } };
    }
    const card = await open(String(sealed));
    const at = new Date().toISOString();
    const expires = new Date(Date.now() + HOLD_DAYS * 86_400_000).toISOString();
    const plain = {
      id: randomUUID(),
      reference,
      asked: amount,
      amount: 0,
      refunded: 0,
      currency,
      approval: '',
      reason: '',
      scheme: String(card?.scheme ?? ''),
      last4: String(card?.number ?? '').slice(-4),
      at,
      expires,
    };
    // It may have come twice at once: what was stored while the card was opened stands.
    const meanwhile = payments.get(reference);
    if (meanwhile) return { status: 200, body: meanwhile };
    /** @param {string} reason */
    const declined = (reason) => ({
      status: 200,
      body: keep({ ...plain, state: /** @type {State} */ ('declined'), reason }),
    });
    if (card === null) return declined('the card could not be read');
    if (voice !== '' && !voiceCodes.has(voice)) return declined('that voice approval is not known');
    const outcome = String(card.outcome ?? 'approve');
    if (outcome.startsWith('decline')) return declined(outcome.slice(8) || 'declined by the bank');
    const partly = outcome.startsWith('partial') ? Number(outcome.slice(8)) : amount;
    if (partly <= 0) return declined('nothing left on the card');
    const approval = String(100_000 + Math.floor(Math.random() * 900_000));
    const state = /** @type {State} */ (capture ? 'captured' : 'authorised');
    return {
      status: 200,
      body: keep({ ...plain, state, amount: Math.min(partly, amount), approval }),
    };
  }

  /**
   * Undoes whatever there is of a reference, also before anything has arrived under it: what comes
   * later is refused. @param {any} body
   */
  function cancel({ reference }) {
    const known = payments.get(reference);
    const at = new Date().toISOString();
    if (!known)
      return {
        status: 200,
        body: keep({
          id: randomUUID(),
          reference,
          state: 'cancelled',
          asked: 0,
          amount: 0,
          refunded: 0,
          currency: '',
          approval: '',
          reason: 'cancelled before it came',
          scheme: '',
          last4: '',
          at,
          expires: at,
        }),
      };
    if (known.state === 'captured' || known.state === 'authorised')
      return { status: 200, body: keep({ ...known, state: 'reversed', refunded: known.amount }) };
    return { status: 200, body: known };
  }

  /** @param {any} body */
  function capture({ reference, amount }) {
    const known = payments.get(reference);
    if (!known)
      return { status: 404, body: { code: 'unknown', message: 'there is no such payment' } };
    if (known.state === 'captured') return { status: 200, body: known };
    if (
      known.state !== 'authorised' ||
      new Date(known.expires) < new Date() ||
      amount > known.amount
    )
      return { status: 409, body: { code: 'not held', message: 'that cannot be taken' } };
    return { status: 200, body: keep({ ...known, state: 'captured', amount }) };
  }

  /** @param {any} body */
  function release({ reference }) {
    const known = payments.get(reference);
    if (!known)
      return { status: 404, body: { code: 'unknown', message: 'there is no such payment' } };
    if (known.state !== 'authorised') return { status: 200, body: known };
    return { status: 200, body: keep({ ...known, state: 'released', amount: 0 }) };
  }

  /** @param {any} body */
  function refund({ reference, amount }) {
    const known = payments.get(reference);
    if (!known)
      return { status: 404, body: { code: 'unknown', message: 'there is no such payment' } };
    if (known.state !== 'captured' || known.refunded + amount > known.amount)
      return { status: 409, body: { code: 'too much', message: 'that is more than was taken' } };
    return { status: 200, body: keep({ ...known, refunded: known.refunded + amount }) };
  }

  function voice() {
    const code = `V${String(10_000 + Math.floor(Math.random() * 90_000))}`;
    voiceCodes.add(code);
    return { status: 200, body: { code } };
  }

  /** What is paid out for a day, with the fee of each. @param {string} day */
  function settlement(day) {
    const rows = [...payments.values()].filter(
      (each) => each.state === 'captured' && each.at.startsWith(day),
    );
    const lines = rows.map(({ reference, id, at, amount, currency, scheme, last4 }) => {
      const fee = Math.round((amount * FEE_RATE) / 10_000) + FEE_FIXED;
      return [id, reference, at, scheme, last4, amount, fee, amount - fee, currency].join(',');
    });
    return ['id,reference,at,scheme,last4,amount,fee,net,currency', ...lines, ''].join('\r\n');
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
    if (request.headers.authorization !== `Bearer ${apiKey}`)
      return send(response, 401, { code: 'key', message: 'the API key is not known' });
    const body = text === '' ? {} : JSON.parse(text);
    if (what === 'POST /faults') {
      faults = { ...faults, ...body };
      return send(response, 200, faults);
    }
    const fault = { ...faults };
    if (faults.dropBefore > 0) faults.dropBefore -= 1;
    else if (faults.dropAfter > 0) faults.dropAfter -= 1;
    if (fault.latency > 0) await new Promise((resolve) => setTimeout(resolve, fault.latency));
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
      case 'POST /payments':
        return await authorise(body);
      case 'GET /payments': {
        const known = payments.get(url.searchParams.get('reference') ?? '');
        return known
          ? { status: 200, body: known }
          : { status: 404, body: { code: 'unknown', message: 'there is no such payment' } };
      }
      case 'POST /cancel':
        return cancel(body);
      case 'POST /capture':
        return capture(body);
      case 'POST /release':
        return release(body);
      case 'POST /refund':
        return refund(body);
      case 'POST /voice':
        return voice();
      case 'GET /settlement':
        return { status: 200, body: settlement(url.searchParams.get('day') ?? '') };
      default:
        return { status: 404, body: { code: 'nowhere', message: 'there is nothing here' } };
    }
  }

  await new Promise((resolve) => server.listen(port, '127.0.0.1', () => resolve(undefined)));
  return {
    url: `http://127.0.0.1:${port}`,
    apiKey,
    payments,
    stop: async () => {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(() => resolve(undefined)));
    },
  };
}

/** @param {http.ServerResponse} response @param {number} status @param {object} body */
function send(response, status, body) {
  response.writeHead(status, { 'content-type': 'application/json' });
  response.end(JSON.stringify(body));
}

if (process.argv[1]?.endsWith('acquirer.mjs')) {
  const [, , port = '0', apiKey = 'practice', file = '.data/acquirer.ndjson'] = process.argv;
  const { url } = await startAcquirer({ port: Number(port), apiKey, file });
  console.log(url);
}

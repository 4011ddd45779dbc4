/** Stands in for a gateway of text messages: takes them, sends nothing, shows them. See README.md. */
import http from 'node:http';

const MOST = 200;

/**
 * @typedef {object} Message
 * @property {string} id
 * @property {string} at ISO 8601
 * @property {string} to
 * @property {string} text
 */

/**
 * @param {{ port: number, apiKey: string }} options On loopback.
 * @returns {Promise<{ url: string, apiKey: string, messages: readonly Message[], stop: () => Promise<void> }>}
 */
export async function startTexts({ port, apiKey }) {
  /** @type {Message[]} */
  const messages = [];
  let refuse = 0;

  /** @param {http.IncomingMessage} request @returns {Promise<any>} */
  async function bodyOf(request) {
    let text = '';
    for await (const part of request) text += part;
    return JSON.parse(text === '' ? '{}' : text);
  }

  /** @param {http.IncomingMessage} request @returns {Promise<number>} Status. */
  async function take(request) {
    if (request.headers.authorization !== `Bearer ${apiKey}`) return 401;
    const { id, to, text } = await bodyOf(request);
    if (![id, to, text].every((part) => typeof part === 'string' && part !== '')) return 422;
    if (refuse > 0) {
      refuse -= 1;
      return 503;
    }
    if (!messages.some((known) => known.id === id))
      messages.unshift({ id, at: new Date().toISOString(), to, text });
    messages.length = Math.min(messages.length, MOST);
    return 200;
  }

  const server = http.createServer((request, response) => {
    void answer(request, response).catch(() => response.writeHead(400).end());
  });

  /** @param {http.IncomingMessage} request @param {http.ServerResponse} response */
  async function answer(request, response) {
    switch (`${request.method} ${request.url}`) {
      case 'POST /messages':
        return response.writeHead(await take(request)).end();
      case 'POST /faults':
        refuse = Number((await bodyOf(request)).refuse);
        return response.writeHead(200).end();
      case 'GET /messages':
        response.setHeader('content-type', 'application/json');
        return response.end(JSON.stringify(messages));
      case 'GET /':
        response.setHeader('content-type', 'text/html; charset=utf-8');
        return response.end(page(messages));
      default:
        return response.writeHead(404).end();
    }
  }

  await new Promise((resolve) => server.listen(port, '127.0.0.1', () => resolve(undefined)));
  return {
    url: `http://127.0.0.1:${port}`,
    apiKey,
    messages,
    stop: async () => {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(() => resolve(undefined)));
    },
  };
}

/** @param {readonly Message[]} messages */
function page(messages) {
  const list = messages.map(
    ({ at, to, text }) =>
      `<article><p>to ${safe(to)}, ${safe(at)}</p><p><b>${safe(text)}</b></p></article>`,
  );
  return `<!doctype html><html lang="en"><meta charset="utf-8">
<meta name="viewport" content="width=device-width"><title>Text messages (practice)</title>
<style>body{font:16px system-ui;max-width:40rem;margin:2rem auto;padding:0 1rem}article{border-top:2px solid #999;padding:.5rem 0}</style>
<h1>Text messages, practice</h1><p>What was sent, to whomever. None of it has left this machine.</p>
${list.length === 0 ? '<p>Nothing yet.</p>' : list.join('\n')}</html>`;
}

/** @param {string} text */
const safe = (text) => text.replace(/[&<>"']/g, (sign) => `&#${String(sign.charCodeAt(0))};`);

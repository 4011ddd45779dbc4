/**
 * Stands in for everybody's mailbox: an SMTP server that takes any mail and delivers none of it, and
 * a page that lists what came. For trying things out, and for tests; it keeps the last 200 in memory.
 */
import http from 'node:http';
import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';

const MOST = 200;

/**
 * @typedef {object} Letter
 * @property {string} at ISO 8601
 * @property {string} to
 * @property {string} subject
 * @property {string} text
 */

/**
 * @param {{ smtpPort: number, webPort: number }} ports On loopback.
 * @returns {Promise<{ smtpUrl: string, web: string, letters: readonly Letter[], stop: () => Promise<void> }>}
 */
export async function startMailbox({ smtpPort, webPort }) {
  /** @type {Letter[]} */
  const letters = [];
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    size: 10 * 1024 * 1024,
    onData: (stream, _session, done) => {
      simpleParser(stream).then(
        ({ to, subject, text }) => {
          const address = Array.isArray(to) ? to.map((each) => each.text).join(', ') : to?.text;
          const at = new Date().toISOString();
          letters.unshift({ at, to: address ?? '', subject: subject ?? '', text: text ?? '' });
          letters.length = Math.min(letters.length, MOST);
          done();
        },
        (error) => done(error),
      );
    },
  });
  const web = http.createServer((request, response) => {
    const isJson = request.url === '/letters';
    response.setHeader('content-type', isJson ? 'application/json' : 'text/html; charset=utf-8');
    response.setHeader('content-security-policy', "default-src 'none'; style-src 'unsafe-inline'");
    response.end(isJson ? JSON.stringify(letters) : page(letters));
  });
  await new Promise((resolve) => smtp.listen(smtpPort, '127.0.0.1', () => resolve(undefined)));
  await new Promise((resolve) => web.listen(webPort, '127.0.0.1', () => resolve(undefined)));
  return {
    smtpUrl: `smtp://127.0.0.1:${smtpPort}`,
    web: `http://127.0.0.1:${webPort}`,
    letters,
    stop: async () => {
      web.closeAllConnections();
      await new Promise((resolve) => web.close(resolve));
      await new Promise((resolve) => smtp.close(() => resolve(undefined)));
    },
  };
}

/** @param {readonly Letter[]} letters */
function page(letters) {
  const list = letters.map(
    ({ at, to, subject, text }) =>
      `<article><h2>${safe(subject)}</h2><p>to ${safe(to)}, ${safe(at)}</p><pre>${linked(safe(text))}</pre></article>`,
  );
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>Mailbox (practice)</title>
<style>body{font:16px system-ui;max-width:46rem;margin:2rem auto;padding:0 1rem}article{border-top:2px solid #999;padding:.5rem 0}pre{white-space:pre-wrap}</style>
<h1>Mailbox, practice</h1><p>Mail that was sent, to whomever. None of it has left this machine.</p>
${list.length === 0 ? '<p>Nothing yet.</p>' : list.join('\n')}</html>`;
}

/** @param {string} text */
const safe = (text) => text.replace(/[&<>"']/g, (sign) => `&#${String(sign.charCodeAt(0))};`);
/** @param {string} text */
const linked = (text) =>
  text.replace(/https?:\/\/[^\s&]+/g, (url) => `<a href="${url}">${url}</a>`);

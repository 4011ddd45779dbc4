/**
 * Stands in for a bank: a separate process with an HTTP interface of its own. It books what one tells it, and makes
 * statements of it. No money moves. See README.md beside this file.
 */
import http from 'node:http';
import { asCamt053, asCsv, BankAccount } from './accounts.mjs';

/** Decimals of the currencies whose minor unit is not a hundredth. @type {Readonly<Record<string, number>>} */
const DECIMALS = { JPY: 0, KRW: 0, ISK: 0, BHD: 3, KWD: 3, TND: 3 };
const DAY = /^\d{4}-\d{2}-\d{2}$/;

/** @param {{ port: number, kept?: readonly BankAccount[] }} options `kept`: accounts that it has from before. */
export async function startBank({ port, kept = [] }) {
  const accounts = new Map(kept.map((account) => [account.iban, account]));

  /** @param {http.IncomingMessage} request @param {http.ServerResponse} response */
  async function answer(request, response) {
    const url = new URL(request.url ?? '/', 'http://localhost');
    let text = '';
    for await (const part of request) text += part;
    const iban = url.searchParams.get('account') ?? '';
    switch (`${request.method} ${url.pathname}`) {
      case 'POST /accounts': {
        const { iban: own, currency = 'GBP', opened = 0 } = JSON.parse(text);
        if (!accounts.has(own)) accounts.set(own, new BankAccount(own, currency, opened));
        return send(response, 200, { iban: own });
      }
      case 'POST /lines': {
        const account = accounts.get(iban);
        if (account === undefined) return send(response, 404, { message: 'no such account' });
        const { day, amount, reference = '', text: words = '', other = '' } = JSON.parse(text);
        try {
          return send(response, 200, account.book({ day, amount, reference, text: words, other }));
        } catch (error) {
          return send(response, 422, { message: error instanceof Error ? error.message : '' });
        }
      }
      case 'GET /':
        response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' });
        return response.end(asPage([...accounts.values()]));
      case 'GET /statement': {
        const account = accounts.get(iban);
        if (account === undefined) return send(response, 404, { message: 'no such account' });
        const [from, to] = [url.searchParams.get('from') ?? '', url.searchParams.get('to') ?? ''];
        if (!DAY.test(from) || !DAY.test(to))
          return send(response, 422, { message: 'from and to: days such as 2026-11-27' });
        const decimals = DECIMALS[account.currency] ?? 2;
        const statement = account.statement(from, to);
        const isCsv = url.searchParams.get('as') === 'csv';
        response.writeHead(200, {
          'content-disposition': `attachment; filename="statement ${from} to ${to}.${isCsv ? 'csv' : 'xml'}"`,
          'content-type': isCsv ? 'text/csv; charset=utf-8' : 'application/xml; charset=utf-8',
        });
        return response.end(
          isCsv ? asCsv(account, statement, decimals) : asCamt053(account, statement, decimals),
        );
      }
      default:
        return send(response, 404, { message: 'there is nothing here' });
    }
  }

  const server = http.createServer((request, response) => {
    void answer(request, response).catch(() => response.destroy());
  });
  await new Promise((resolve) => server.listen(port, '127.0.0.1', () => resolve(undefined)));
  const address = server.address();
  const on = typeof address === 'object' && address !== null ? address.port : port;
  return {
    url: `http://127.0.0.1:${String(on)}`,
    /** What it has, as `BankAccount.of` takes it up again. */
    kept: () => [...accounts.values()].map((account) => account.toJSON()),
    stop: async () => {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(() => resolve(undefined)));
    },
  };
}

/** Its accounts, with a form for the statement of some days. @param {readonly BankAccount[]} accounts */
function asPage(accounts) {
  const forms = accounts.map((account) => {
    const { from, to } = account.days();
    return `<form action="/statement"><h2>${account.iban}, ${account.currency}</h2>
<input type="hidden" name="account" value="${account.iban}">
<label>From <input type="date" name="from" value="${from}" required></label>
<label>to <input type="date" name="to" value="${to}" required></label>
<button name="as" value="camt.053">as CAMT.053</button> <button name="as" value="csv">as CSV</button></form>`;
  });
  return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>The bank, for practice</title><h1>The bank, for practice</h1>
${forms.length === 0 ? '<p>There is no account yet.</p>' : forms.join('\n')}`;
}

/** @param {http.ServerResponse} response @param {number} status @param {object} body */
function send(response, status, body) {
  response.writeHead(status, { 'content-type': 'application/json' });
  response.end(JSON.stringify(body));
}

if (process.argv[1]?.endsWith('bank.mjs')) {
  const [, , port = '0'] = process.argv;
  const { url } = await startBank({ port: Number(port) });
  console.log(url);
}

/** What the bank's stand-in answers is what the readers of statements read. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { BankAccount } from '../../standins/bank/accounts.mjs';
import { startBank } from '../../standins/bank/bank.mjs';
import { statementFaults } from '../../src/lib/core/bank/statement';
import { bankTable, guessColumns, readBankTable } from '../../src/lib/core/formats/bank-table';
import { readCamt053 } from '../../src/lib/core/formats/camt053';
import Papa from 'papaparse';

const IBAN = 'GB33BUKB20201555555555';
let bank: Awaited<ReturnType<typeof startBank>>;
before(async () => {
  bank = await startBank({ port: 0 });
});
after(() => bank.stop());

const post = (path: string, body: object): Promise<Response> =>
  fetch(`${bank.url}${path}`, { method: 'POST', body: JSON.stringify(body) });
const statement = (more = ''): Promise<Response> =>
  fetch(`${bank.url}/statement?account=${IBAN}&from=2026-11-23&to=2026-11-24${more}`);

describe('the bank', () => {
  it('says what is wrong with what it is asked', async () => {
    assert.equal((await statement()).status, 404);
    assert.equal((await post('/accounts', { iban: IBAN, opened: 1000 })).status, 200);
    assert.equal((await post(`/lines?account=${IBAN}`, { day: 'soon', amount: 5 })).status, 422);
    assert.equal(
      (await post(`/lines?account=${IBAN}`, { day: '2026-11-23', amount: 0 })).status,
      422,
    );
    assert.equal((await fetch(`${bank.url}/statement?account=${IBAN}`)).status, 422);
    assert.equal((await fetch(`${bank.url}/nowhere`)).status, 404);
  });

  it('makes statements of some days with the balances around them, as both formats', async () => {
    const line = (day: string, amount: number, text: string) =>
      post(`/lines?account=${IBAN}`, { day, amount, text, reference: 'R-1', other: 'A & B' });
    await line('2026-11-22', 500, 'before');
    await line('2026-11-24', -250, 'went, "quoted"');
    await line('2026-11-23', 12_345, 'came');
    const read = readCamt053(await (await statement()).text());
    assert.ok(read.ok);
    const [found] = read.statements;
    assert.deepEqual([found?.opening, found?.closing, found?.account], [1500, 13_595, IBAN]);
    assert.deepEqual(statementFaults(found!, 'GBP'), []);
    const { data } = Papa.parse<string[]>(await (await statement('&as=csv')).text());
    const table = bankTable(data);
    const csv = readBankTable(table, guessColumns(table), 'GBP');
    assert.deepEqual(csv.faults, []);
    const plain = (lines: readonly { day: string; amount: number; reference: string }[]) =>
      lines.map(({ day, amount, reference }) => [day, amount, reference]);
    assert.deepEqual(plain(csv.lines), plain(found!.lines));
    assert.deepEqual(
      found?.lines.map(({ other, text }) => [other, text]),
      [
        ['A & B', 'came'],
        ['A & B', 'went, "quoted"'],
      ],
    );
  });

  it('goes on with what it had, and offers that to people', async () => {
    const had = bank.kept();
    const again = await startBank({ port: 0, kept: had.map((each) => BankAccount.of(each)) });
    try {
      const path = `/statement?account=${IBAN}&from=2026-11-20&to=2026-11-30`;
      const [before, after] = await Promise.all(
        [bank, again].map(async ({ url }) => (await fetch(`${url}${path}`)).text()),
      );
      assert.equal(after, before);
      const page = await (await fetch(again.url)).text();
      assert.match(page, new RegExp(`${IBAN}, GBP`));
      assert.match(page, /name="from" value="2026-11-22".*\n.*name="to" value="2026-11-24"/);
    } finally {
      await again.stop();
    }
  });
});

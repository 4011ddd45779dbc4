/** The demo's bank: the stand-in's own statements, taken in and joined by the same commands as on the page. */
import { asCamt053, asCsv, BankAccount } from '../standins/bank/accounts.mjs';
import type { BankNow } from '../src/lib/core/bank/bank-now';
import { joinBank } from '../src/lib/core/bank/join-bank';
import { lookAt, setBankAccount, takeStatement } from '../src/lib/core/bank/take-statement';
import { readCamt053 } from '../src/lib/core/formats/camt053';
import { typedText } from '../src/lib/core/money/amount-text';
import { currencyOf } from '../src/lib/core/money/currency';
import { bankNow } from '../src/lib/server/books/bank-rows';
import type { BookReader } from '../src/lib/server/books/read-books';
import type { DemoBusiness } from './business';
import { newId, type DemoDevice } from './demo-device';

/** A file of the bank that somebody can take in. */
export interface DemoFile {
  readonly name: string;
  readonly text: string;
}

export class DemoBank {
  readonly account: BankAccount;
  #id = '';

  constructor(
    readonly desk: DemoDevice,
    readonly books: BookReader,
    readonly demo: DemoBusiness,
    readonly owner: string | null,
  ) {
    this.account = new BankAccount(demo.bank.number, demo.business.currency, 125_000);
  }

  /** @param at Milliseconds since 1970. */
  async setUp(at: number): Promise<void> {
    const { name, number } = this.demo.bank;
    const made = setBankAccount(newId, {
      ...{ id: null, typedName: name, typedNumber: number, columns: null },
      ...{ isActive: true, accounts: [] },
    });
    if (!made.ok) throw new Error('the demo could not set up its bank account');
    this.#id = made.id;
    this.desk.write(made.drafts, at, this.owner);
    await this.desk.send();
  }

  /** Money that came or went. @param day ISO date. @param amount Minor units. */
  book(day: string, amount: number, other: string, text: string, reference = ''): void {
    if (amount !== 0) this.account.book({ day, amount, other, text, reference });
  }

  #file(from: string, to: string, as: typeof asCamt053 | typeof asCsv): string {
    const { decimals } = currencyOf(this.demo.business.currency);
    return as(this.account, this.account.statement(from, to), decimals);
  }

  /** The statement of a day, taken in; whatever one thing alone fits is joined. @param at Milliseconds since 1970. */
  async takeIn(day: string, at: number): Promise<void> {
    const { desk, books, demo, owner } = this;
    const { currency } = demo.business;
    const read = readCamt053(this.#file(day, day, asCamt053));
    if (!read.ok) throw new Error(read.says);
    const [statement] = read.statements;
    if (statement === undefined || statement.lines.length === 0) return;
    const account = { id: this.#id, ...demo.bank };
    const { fresh, faults } = lookAt(statement, {
      ...{ business: demo.id, currency, accounts: [account], chosen: null, known: [] },
    });
    if (faults.length > 0) throw new Error(faults.join(' '));
    desk.write(takeStatement(newId, this.#id, `statement ${day}.xml`, fresh), at, owner);
    await desk.send();
    for (let turn = 1; ; turn += 1) {
      const now = await bankNow(desk.database, books, demo.id, '', at);
      const joined = this.#joinOne(now, currency);
      if (joined === null) return;
      desk.write(joined, at + turn * 1000, owner);
      await desk.send();
    }
  }

  /** What is sure; then what one thing alone fits. */
  #joinOne({ open, money, proposals }: BankNow, currency: string) {
    const only = proposals.filter(
      ({ line, difference }) =>
        difference === 0 && proposals.filter((each) => each.line === line).length === 1,
    );
    const one = proposals.find(({ isCertain }) => isCertain) ?? only[0];
    const line = open.find(({ id }) => id === one?.line);
    const of = money.find(({ key }) => key === one?.key);
    if (line === undefined || of === undefined) return null;
    const typed = typedText(Math.abs(line.left), currency);
    const made = joinBank({ newId, line, open: of, typed, currency, rest: 'to come' });
    return made.ok ? made.drafts : null;
  }

  /** A statement that nobody has taken in yet, as the bank offers it. */
  files(from: string, to: string): readonly DemoFile[] {
    const name = `${this.demo.business.name} ${from} to ${to}`;
    return [
      { name: `${name}.xml`, text: this.#file(from, to, asCamt053) },
      { name: `${name}.csv`, text: this.#file(from, to, asCsv) },
      // What the bank itself goes on with.
      { name: `${this.demo.business.name}.json`, text: JSON.stringify(this.account) },
    ];
  }
}

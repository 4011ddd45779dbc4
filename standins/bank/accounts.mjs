/** What the bank's stand-in knows of accounts: no network, no disk, no clock of its own. */

/**
 * @typedef {object} Line
 * @property {string} id What the bank calls it.
 * @property {string} day ISO date.
 * @property {number} amount Minor units; below nothing for what goes.
 * @property {string} reference
 * @property {string} text
 * @property {string} other Who is at the other end.
 *
 * @typedef {object} Statement
 * @property {string} number
 * @property {string} from ISO date.
 * @property {string} to ISO date.
 * @property {number} opening Minor units.
 * @property {number} closing Minor units.
 * @property {readonly Line[]} lines
 */

export class BankAccount {
  /** @type {Line[]} */
  #lines = [];

  /**
   * @param {string} iban @param {string} currency
   * @param {number} opened Minor units that were there before the first line.
   */
  constructor(iban, currency, opened = 0) {
    this.iban = iban;
    this.currency = currency;
    this.opened = opened;
  }

  /**
   * Money comes or goes: a payout of an acquirer, a bag that was paid in, a transfer, a debit.
   * @param {Omit<Line, 'id'>} line @returns {Line}
   */
  book(line) {
    if (!/^\d{4}-\d{2}-\d{2}$/.test(line.day)) throw new RangeError('a day such as 2026-11-27');
    if (!Number.isSafeInteger(line.amount) || line.amount === 0)
      throw new RangeError('an amount in minor units that is not nothing');
    const booked = { ...line, id: `BK${String(this.#lines.length + 1).padStart(6, '0')}` };
    this.#lines.push(booked);
    return booked;
  }

  /** All of it, as `BankAccount.of` takes it up again. */
  toJSON() {
    const { iban, currency, opened } = this;
    return { iban, currency, opened, lines: this.#lines };
  }

  /** @param {{ iban: string, currency: string, opened: number, lines: readonly Omit<Line, 'id'>[] }} kept */
  static of({ iban, currency, opened, lines }) {
    const account = new BankAccount(iban, currency, opened);
    for (const line of lines) account.book(line);
    return account;
  }

  /** The days of its first line and of its last; empty before there is one. */
  days() {
    const days = this.#lines.map(({ day }) => day).sort();
    return { from: days[0] ?? '', to: days.at(-1) ?? '' };
  }

  /**
   * Its lines of some days, with the balances around them. The same days give the same statement.
   * @param {string} from ISO date. @param {string} to ISO date. @returns {Statement}
   */
  statement(from, to) {
    const lines = this.#lines
      .filter(({ day }) => day >= from && day <= to)
      .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : a.id < b.id ? -1 : 1));
    /** @param {readonly Line[]} of */
    const sum = (of) => of.reduce((total, { amount }) => total + amount, 0);
    const opening = this.opened + sum(this.#lines.filter(({ day }) => day < from));
    return {
      number: `${from.replaceAll('-', '')}-${to.replaceAll('-', '')}`,
      from,
      to,
      opening,
      closing: opening + sum(lines),
      lines,
    };
  }
}

/** @param {number} amount Minor units. @param {number} decimals */
const plain = (amount, decimals) => {
  const digits = String(Math.abs(amount)).padStart(decimals + 1, '0');
  const text = decimals === 0 ? digits : `${digits.slice(0, -decimals)}.${digits.slice(-decimals)}`;
  return amount < 0 ? `-${text}` : text;
};

/** @param {string} text */
const escaped = (text) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');

/**
 * CAMT.053.001.08 of one statement, as a bank writes it.
 * @param {BankAccount} account @param {Statement} statement @param {number} decimals
 */
export function asCamt053(
  { iban, currency },
  { number, from, to, opening, closing, lines },
  decimals,
) {
  /** @param {number} amount */
  const money = (amount) =>
    `<Amt Ccy="${currency}">${plain(Math.abs(amount), decimals)}</Amt>` +
    `<CdtDbtInd>${amount < 0 ? 'DBIT' : 'CRDT'}</CdtDbtInd>`;
  /** @param {string} code @param {number} amount @param {string} day */
  const balance = (code, amount, day) =>
    `<Bal><Tp><CdOrPrtry><Cd>${code}</Cd></CdOrPrtry></Tp>${money(amount)}<Dt><Dt>${day}</Dt></Dt></Bal>`;
  const entries = lines.map(({ id, day, amount, reference, text, other }) => {
    const party = amount < 0 ? 'Cdtr' : 'Dbtr';
    return (
      `<Ntry>${money(amount)}<Sts><Cd>BOOK</Cd></Sts><BookgDt><Dt>${day}</Dt></BookgDt>` +
      `<ValDt><Dt>${day}</Dt></ValDt><AcctSvcrRef>${id}</AcctSvcrRef><NtryDtls><TxDtls><Refs><EndToEndId>` +
      `${reference === '' ? 'NOTPROVIDED' : escaped(reference)}</EndToEndId></Refs><RltdPties><${party}><Pty><Nm>` +
      `${escaped(other)}</Nm></Pty></${party}></RltdPties><RmtInf><Ustrd>${escaped(text)}</Ustrd></RmtInf>` +
      '</TxDtls></NtryDtls></Ntry>'
    );
  });
  return (
    '<?xml version="1.0" encoding="UTF-8"?>\n' +
    '<Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.001.08"><BkToCstmrStmt>' +
    `<GrpHdr><MsgId>M${number}</MsgId><CreDtTm>${to}T23:59:59Z</CreDtTm></GrpHdr>` +
    `<Stmt><Id>${number}</Id><CreDtTm>${to}T23:59:59Z</CreDtTm>` +
    `<FrToDt><FrDtTm>${from}T00:00:00Z</FrDtTm><ToDtTm>${to}T23:59:59Z</ToDtTm></FrToDt>` +
    `<Acct><Id><IBAN>${iban}</IBAN></Id><Ccy>${currency}</Ccy></Acct>` +
    `${balance('OPBD', opening, from)}${balance('CLBD', closing, to)}\n${entries.join('\n')}\n` +
    '</Stmt></BkToCstmrStmt></Document>\n'
  );
}

/**
 * CSV as this bank writes it: two columns of amounts, days the way people write them here.
 * @param {BankAccount} account @param {Statement} statement @param {number} decimals
 */
export function asCsv({ iban }, { opening, lines }, decimals) {
  /** @param {string} cell */
  const quoted = (cell) => `"${cell.replaceAll('"', '""')}"`;
  let balance = opening;
  const rows = lines.map(({ day, amount, reference, text, other }) => {
    balance += amount;
    const words = [other, text].filter((each) => each !== '').join(' ');
    return [
      day.split('-').reverse().join('/'),
      quoted(words),
      quoted(reference),
      amount > 0 ? plain(amount, decimals) : '',
      amount < 0 ? plain(-amount, decimals) : '',
      plain(balance, decimals),
    ].join(',');
  });
  return [`Account,${iban}`, 'Date,Details,Reference,Paid in,Paid out,Balance', ...rows, ''].join(
    '\r\n',
  );
}

import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { asCamt053, BankAccount } from '../../../../standins/bank/accounts.mjs';
import { amountIn, namedLines, statementFaults, type RawLine } from '../bank/statement';
import { formatOf, readStatements } from '../bank/read-file';
import { typedText } from '../money/amount-text';
import { bankTable, dayIn, guessColumns, ordersOf, readBankTable } from './bank-table';
import { readCamt053 } from './camt053';
import { readMt940 } from './mt940';
import { readOfx } from './ofx';

const IBAN = 'GB33BUKB20201555555555';
const raw = (more: Partial<RawLine> = {}): RawLine => ({
  day: '2026-11-23',
  amount: 12_345,
  own: 'B1',
  reference: 'PO-20261122',
  text: 'Payout of cards',
  other: 'Practice acquirer',
  ...more,
});
/** A file as the bank's stand-in writes it. */
const camt = (lines: readonly RawLine[], iban = IBAN): string => {
  const account = new BankAccount(iban, 'GBP', 100_000);
  for (const { own: _own, ...line } of lines) account.book(line);
  return asCamt053(account, account.statement('2026-11-01', '2026-11-30'), 2);
};
/** All statements of these files in one. */
const together = ([first = '', ...more]: readonly string[]): string =>
  first.replace(
    '</BkToCstmrStmt>',
    `${more.flatMap((each) => /<Stmt>[\s\S]*<\/Stmt>/.exec(each) ?? []).join('')}</BkToCstmrStmt>`,
  );
const statementsOf = (read: ReturnType<typeof readCamt053>) => {
  if (!read.ok) assert.fail(read.says);
  return read.statements;
};
const saysOf = (read: ReturnType<typeof readCamt053>): string => (read.ok ? '' : read.says);

describe('amounts in statements', () => {
  it('are read with either mark, grouped or not, with signs before or after', () => {
    const cases: readonly [string, '.' | ',', number | null][] = [
      ['1234.5', '.', 123_450],
      ['1,234.50', '.', 123_450],
      ['1.234,50', ',', 123_450],
      ['12,00-', ',', -1200],
      ['-0.01', '.', -1],
      ['+7', '.', 700],
      ['12.50000', '.', 1250],
      ['.5', '.', 50],
      ['£ 3.20', '.', 320],
      ['12.505', '.', null],
      ['12,34', '.', null],
      ['1.2.3', '.', null],
      ['12,34,567.00', '.', null],
      ['-5-', '.', null],
      ['', '.', null],
      ['five', '.', null],
    ];
    for (const [typed, mark, amount] of cases)
      assert.equal(amountIn(typed, 'GBP', mark), amount, `${typed} with ${mark}`);
    assert.equal(amountIn('1200', 'JPY'), 1200);
  });

  it('are the same written and read', () => {
    fc.assert(
      fc.property(fc.integer({ min: -99_999_999, max: 99_999_999 }), (amount) => {
        assert.equal(amountIn(typedText(amount, 'GBP'), 'GBP'), amount === 0 ? 0 : amount);
      }),
    );
  });
});

describe('CAMT.053', () => {
  it('is read as a bank writes it, with all of its accounts', () => {
    const lines = [raw(), raw({ amount: -4500, other: 'Town council', reference: '' })];
    const text = together([camt(lines), camt([raw()], 'DE89370400440532013000')]);
    assert.equal(formatOf(text), 'CAMT.053');
    const read = statementsOf(readStatements(text, 'CAMT.053'));
    assert.deepEqual(
      read.map(({ account, currency, opening, closing }) => [account, currency, opening, closing]),
      [
        [IBAN, 'GBP', 100_000, 107_845],
        ['DE89370400440532013000', 'GBP', 100_000, 112_345],
      ],
    );
    assert.deepEqual(
      read[0]?.lines.map(({ id: _id, ...line }) => line),
      lines.map(({ own: _own, ...line }) => line),
    );
    assert.deepEqual(
      read.flatMap((each) => statementFaults(each, 'GBP')),
      [],
    );
  });

  it('of another currency, with a line too few, or cut off, says so', () => {
    const good = camt([raw()]);
    const euros = statementsOf(readCamt053(good.replaceAll('GBP', 'EUR')));
    assert.match(
      statementFaults(euros[0]!, 'GBP').join(),
      /is in EUR, and the books are kept in GBP/,
    );
    const off = statementsOf(readCamt053(good.replace('1123.45', '1123.46')));
    assert.match(statementFaults(off[0]!, 'GBP').join(), /ends with 1123\.46 instead of 1123\.45/);
    assert.match(saysOf(readCamt053(good.slice(0, good.length / 2))), /cut off; fetch it again/);
    assert.match(
      saysOf(readCamt053('<Document><Other/></Document>')),
      /no bank statement in this XML/,
    );
    const bomb = `<!DOCTYPE d [<!ENTITY a "aaaa">]>${good}`;
    assert.match(saysOf(readCamt053(bomb)), /declares entities of its own/);
    const soon = good.replaceAll('<Dt>2026-11-23</Dt>', '<Dt>soon</Dt>');
    assert.match(saysOf(readCamt053(soon)), /entry 1: “soon” is no day/);
    const much = good.replaceAll('>123.45</Amt>', '>much</Amt>');
    assert.match(saysOf(readCamt053(much)), /entry 1: “much” is no amount in GBP/);
  });

  it('says a line of several transfers as several, and passes over what is only announced', () => {
    const good = camt([raw({ amount: 3000 })]);
    const details = (amount: string, reference: string): string =>
      `<TxDtls><Refs><EndToEndId>${reference}</EndToEndId></Refs><Amt Ccy="GBP">${amount}</Amt></TxDtls>`;
    const several = good.replace(
      /<NtryDtls>[\s\S]*<\/NtryDtls>/,
      `<NtryDtls>${details('10.00', 'A-1')}${details('20.00', 'A-2')}</NtryDtls>`,
    );
    const [statement] = statementsOf(readCamt053(several));
    assert.deepEqual(
      statement?.lines.map(({ amount, reference }) => [amount, reference]),
      [
        [1000, 'A-1'],
        [2000, 'A-2'],
      ],
    );
    const uneven = statementsOf(readCamt053(several.replace('>10.00<', '>11.00<')));
    assert.deepEqual(
      uneven[0]?.lines.map(({ amount }) => amount),
      [3000],
    );
    const pending = statementsOf(readCamt053(good.replace('<Cd>BOOK</Cd>', '<Cd>PDNG</Cd>')));
    assert.deepEqual(pending[0]?.lines, []);
  });

  it('gives the same line the same name in every file, and equal lines names of their own', () => {
    const ids = (lines: readonly RawLine[]): readonly string[] =>
      namedLines(lines).map(({ id }) => id);
    const [a, b] = [raw({ own: '' }), raw({ own: '', amount: 5 })];
    assert.deepEqual(ids([a, b]).slice(0, 1), ids([a]));
    assert.equal(new Set(ids([a, a, b])).size, 3);
    // Said twice by the bank's own name it is the same; a bank that calls everything the same has not named it.
    assert.deepEqual(ids([raw()]), ids([raw({ text: 'in other words' })]));
    assert.equal(new Set(ids([raw({ own: 'NONREF' }), raw({ own: 'NONREF', amount: 7 })])).size, 2);
  });
});

const MT940 = [
  ':20:STARTUMSE',
  ':25:20040000/1234567890',
  ':28C:00012/001',
  ':60F:C261101GBP1000,00',
  ':61:2611231123CR123,45NTRFPO-20261122//B1',
  ':86:?20PO-20261122 cards?32Practice acquirer',
  ':61:2611241124DR45,00NTRFNONREF//B2',
  ':86:Pitch in November',
  ':62F:C261130GBP1078,45',
  '-',
  '',
].join('\r\n');

describe('MT940', () => {
  it('is read with signs, days, references and names', () => {
    assert.equal(formatOf(MT940), 'MT940');
    const [statement] = statementsOf(readStatements(MT940, 'MT940'));
    assert.equal(statement?.account, '1234567890');
    assert.deepEqual([statement?.opening, statement?.closing], [100_000, 107_845]);
    assert.deepEqual(
      statement?.lines.map(({ day, amount, reference, other }) => [day, amount, reference, other]),
      [
        ['2026-11-23', 12_345, 'PO-20261122', 'Practice acquirer'],
        ['2026-11-24', -4500, '', ''],
      ],
    );
    assert.match(statement?.lines[1]?.text ?? '', /Pitch in November/);
  });

  it('that is cut off, or does not add up, says so', () => {
    assert.match(
      saysOf(readMt940(MT940.slice(0, MT940.indexOf(':62F:')))),
      /has no “:62:”.*cut off/,
    );
    assert.match(
      saysOf(readMt940(MT940.replace('GBP1078,45', 'GBP1078,46'))),
      /A line is missing or double/,
    );
    assert.match(saysOf(readMt940(':20:X\r\n:61:nonsense\r\n')), /no MT940 file that can be read/);
  });
});

const OFX = (more = ''): string =>
  [
    'OFXHEADER:100',
    'DATA:OFXSGML',
    '',
    '<OFX><BANKMSGSRSV1><STMTTRNRS><STMTRS><CURDEF>GBP',
    '<BANKACCTFROM><BANKID>200415<ACCTID>55779911<ACCTTYPE>CHECKING</BANKACCTFROM>',
    '<BANKTRANLIST><DTSTART>20261101<DTEND>20261130',
    '<STMTTRN><TRNTYPE>CREDIT<DTPOSTED>20261123120000<TRNAMT>123.45<FITID>F1<NAME>Practice acquirer<MEMO>PO-20261122</STMTTRN>',
    `<STMTTRN><TRNTYPE>DEBIT<DTPOSTED>20261124<TRNAMT>-45.00<FITID>F2<NAME>Town council</STMTTRN>${more}`,
    '</BANKTRANLIST><LEDGERBAL><BALAMT>1078.45<DTASOF>20261130</LEDGERBAL>',
    '</STMTRS></STMTTRNRS></BANKMSGSRSV1></OFX>',
  ].join('\n');

describe('OFX', () => {
  it('is read, one transaction or many', () => {
    assert.equal(formatOf(OFX()), 'OFX');
    const [statement] = statementsOf(readStatements(OFX(), 'OFX'));
    assert.equal(statement?.account, '55779911');
    assert.deepEqual(
      statement?.lines.map(({ day, amount, other, text }) => [day, amount, other, text]),
      [
        ['2026-11-23', 12_345, 'Practice acquirer', 'PO-20261122'],
        ['2026-11-24', -4500, 'Town council', ''],
      ],
    );
    const one = OFX().replace(/<STMTTRN><TRNTYPE>DEBIT.*<\/STMTTRN>/, '');
    assert.equal(statementsOf(readOfx(one))[0]?.lines.length, 1);
  });

  it('that is cut off, or has no amount, says so', () => {
    assert.match(saysOf(readOfx(OFX().slice(0, 400))), /ends before its <\/OFX>/);
    assert.match(
      saysOf(readOfx(OFX().replace('-45.00', 'lots'))),
      /Transaction 2: “lots” is no amount/,
    );
    assert.match(
      saysOf(readOfx('<OFX><SIGNONMSGSRSV1></SIGNONMSGSRSV1></OFX>')),
      /no statement of a bank account/,
    );
  });
});

describe('CSV of banks', () => {
  const rows = [
    ['Account', 'Larkmoss'],
    ['Date', 'Description', 'Paid in', 'Paid out', 'Balance'],
    ['23/11/2026', 'PO-20261122', '1,123.45', '', '2,123.45'],
    ['24/11/2026', 'Town council', '', '45.00', '2,078.45'],
  ];

  it('is read by columns that are guessed, below whatever stands above them', () => {
    const table = bankTable(rows);
    const columns = guessColumns(table);
    assert.deepEqual(columns, {
      ...{ day: 'Date', order: 'dmy', mark: '.', amount: '', came: 'Paid in', went: 'Paid out' },
      ...{ reference: '', text: 'Description', other: '', balance: 'Balance' },
    });
    const { lines, opening, closing, faults } = readBankTable(table, columns, 'GBP');
    assert.deepEqual(faults, []);
    assert.deepEqual([opening, closing], [100_000, 207_845]);
    assert.deepEqual(
      lines.map(({ day, amount, text }) => [day, amount, text]),
      [
        ['2026-11-23', 112_345, 'PO-20261122'],
        ['2026-11-24', -4500, 'Town council'],
      ],
    );
  });

  it('with shifted columns, both signs, another order of days or no amount says so line by line', () => {
    const table = bankTable([
      ...rows,
      ['25/11/2026', 'short'],
      ['26/11/2026', 'both', '1.00', '2.00', ''],
      ['11/27/2026', 'other order', '1.00', '', ''],
      ['27/11/2026', 'neither', '', '', ''],
      ['28/11/2026', 'comma', '1,50', '', ''],
    ]);
    const { lines, faults } = readBankTable(table, guessColumns(bankTable(rows)), 'GBP');
    assert.equal(lines.length, 2);
    assert.deepEqual(
      faults.map(({ at, says }) => [at, says.slice(0, 40)]),
      [
        [5, 'This line has 2 cells and the headings a'],
        [6, 'Both “Paid in” (1.00) and “Paid out” (2.'],
        [7, '“11/27/2026” is no day in the order day,'],
        [8, 'Neither “Paid in” nor “Paid out” has an '],
        [9, '“1,50” in the column “Paid in” is no amo'],
      ],
    );
    const gone = { ...guessColumns(bankTable(rows)), day: 'Datum' };
    assert.match(
      readBankTable(table, gone, 'GBP').faults[0]?.says ?? '',
      /no column “Datum” in this file; its columns are Date/,
    );
  });

  it('holds each line against the balance after it, whichever line comes first', () => {
    const [account, heads, first, second] = rows as [string[], string[], string[], string[]];
    const third = ['25/11/2026', 'Float', '', '50.00', '2,028.45'];
    const read = (...lines: string[][]) => {
      const table = bankTable([account, heads, ...lines]);
      return readBankTable(table, guessColumns(table), 'GBP');
    };
    const upwards = read(third, second, first);
    assert.deepEqual(upwards.faults, []);
    assert.deepEqual([upwards.opening, upwards.closing], [100_000, 202_845]);
    // Only the last of a day may have one.
    assert.deepEqual(read(first, [...second.slice(0, 4), ''], third).faults, []);
    const missing = read(first, third);
    assert.deepEqual(
      missing.faults.map(({ at }) => at),
      [4],
    );
    assert.match(
      missing.faults[0]!.says,
      /balance here is 2028\.45, and 2123\.45 before it with -50\.00 makes 2073\.45/,
    );
    assert.match(
      read(first, [...second.slice(0, 4), 'lots']).faults[0]!.says,
      /“lots” in the column “Balance”/,
    );
    const table = bankTable(rows);
    const gone = { ...guessColumns(table), balance: 'Saldo' };
    assert.match(readBankTable(table, gone, 'GBP').faults[0]!.says, /no column “Saldo”/);
    const before = { ...guessColumns(table), balance: undefined };
    assert.deepEqual(readBankTable(table, before, 'GBP').opening, null);
  });

  it('tells in which orders all days are days', () => {
    assert.deepEqual(ordersOf(['03/04/2026', '05/06/2026']), ['dmy', 'mdy']);
    assert.deepEqual(ordersOf(['03/04/2026', '25/06/2026']), ['dmy']);
    assert.deepEqual(ordersOf(['2026-11-23', '20261124']), ['ymd']);
    assert.equal(dayIn('31/6/2026', 'dmy'), null);
    assert.equal(dayIn('1.2.26', 'dmy'), '2026-02-01');
  });
});

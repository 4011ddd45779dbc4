/** Banks: accounts, lines of statements, what each line is, and money that was not so after all. */
import type { EntryOf } from '../../daybook/kinds';
import { outsideId } from '../../daybook/outside-id';
import { merge, put, type Change } from '../change';
import { act } from './acts';
import { saidBy } from './said-by';

/** The same line of the same account is the same row, however often and from whatever file it is taken in. */
export const bankLineId = (business: string, account: string, line: string): string =>
  outsideId(business, 'bank-line', `${account} ${line}`);

/** What is said of a line and a sum of money is one row, so that it can be said again. */
export const bankJoinId = (business: string, line: string, money: string | null): string =>
  outsideId(business, 'bank-join', `${line} ${String(money)}`);

export const bankSet = ({ stamp, body }: EntryOf<'bank.set'>): Change[] => {
  const { id, ...set } = body;
  return [merge('bankAccounts', id, 'set', stamp, set)];
};

export const bankStated = (entry: EntryOf<'bank.stated'>): Change[] => {
  const { account, source, lines } = entry.body;
  return lines.map(({ id, ...line }) =>
    merge('bankLines', bankLineId(entry.business, account, id), 'set', entry.stamp, {
      ...{ account, source, ...line },
    }),
  );
};

export const bankJoined = ({ business, stamp, at, by, body }: EntryOf<'bank.joined'>): Change[] => [
  merge('bankJoins', bankJoinId(business, body.line, body.money), 'set', stamp, {
    ...{ ...body, saidAt: at, saidBy: by },
  }),
];

export const moneyUndone = (entry: EntryOf<'money.undone'>): Change[] => {
  const { takes, why } = entry.body;
  return [
    put('moneyUndone', {
      ...{ id: entry.id, ...saidBy(entry), device: entry.device, money: takes.of, why },
    }),
    act(entry, { what: 'money.undone', about: why.slice(0, 120), amount: null }),
  ];
};

export const handedIn = (entry: EntryOf<'handed.in'>): Change[] => [
  put('handedIn', { id: entry.id, ...saidBy(entry), device: entry.device, ...entry.body }),
  act(entry, { what: 'handed.in', about: entry.body.what, amount: entry.body.amount }),
];

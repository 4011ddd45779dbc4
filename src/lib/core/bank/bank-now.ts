/** The bank at one moment: what the server answers, and a page shows. */
import type { Row } from '../books/tables';
import { partsSchema } from '../daybook/parts-schema';
import type { BankLineNow } from './bank-lines';
import type { CostProposal } from './due-costs';
import type { WrittenMoney } from './join-bank';
import type { Already, Proposal } from './match-bank';
import type { OpenMoney } from './open-money';

export interface BankNow {
  readonly business: string;
  readonly accounts: readonly Row<'bankAccounts'>[];
  /** With something left to say, the latest day first; and the last ones that are done with. */
  readonly open: readonly BankLineNow[];
  readonly done: readonly BankLineNow[];
  /** How many more there are that are done with, before the last of these. */
  readonly older: number;
  readonly money: readonly OpenMoney[];
  readonly proposals: readonly Proposal[];
  /** Costs of events that lines may have paid. */
  readonly costs: readonly CostProposal[];
  readonly already: readonly Already[];
  /** What came or was paid that lines were joined to. */
  readonly written: readonly (WrittenMoney & { readonly what: string; readonly at: string })[];
  readonly events: readonly { readonly id: string; readonly name: string; readonly day: string }[];
}

/** What a page is sure of before it shows it. */
export const bankNowSchema = partsSchema<BankNow>({
  business: 'text',
  accounts: 'list',
  open: 'list',
  done: 'list',
  older: 'number',
  money: 'list',
  proposals: 'list',
  costs: 'list',
  already: 'list',
  written: 'list',
  events: 'list',
});

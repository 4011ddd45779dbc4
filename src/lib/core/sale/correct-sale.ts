/** Putting right what was booked wrongly of a sale. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import type { Fix } from '../daybook/kinds/sale-corrected';
import { isHeldMethod } from '../held/held-account';
import { standingVoids } from '../loose-end/voided-twice';
import { changeOf, eventsOf, movesOf, type Correctable } from './corrections';

export interface CorrectSale extends Correctable {
  readonly newId: () => string;
  readonly fix: Fix;
  readonly reason: string;
  readonly voids: readonly Row<'voids'>[];
  readonly undone: readonly Row<'voidsUndone'>[];
  readonly returns: readonly Pick<Row<'returns'>, 'lines'>[];
}

export type CorrectRefusal =
  | { readonly code: 'correct/voided' }
  | { readonly code: 'correct/no-reason' }
  /** It is as it was said to be already. */
  | { readonly code: 'correct/same' }
  /** A card was charged, or goods that came back paid: that is given back instead. */
  | { readonly code: 'correct/card' }
  /** It was paid from an account that somebody holds, or would be: that is voided, or taken back. */
  | { readonly code: 'correct/account' }
  | { readonly code: 'correct/no-drawer' }
  /** Parts of it were paid at several events. */
  | { readonly code: 'correct/several' }
  /** Some of it came back: of the item, and off whose sales, that it was rung up as. */
  | { readonly code: 'correct/came-back'; readonly name: string };

export type CorrectOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: CorrectRefusal };

/** The sale, as it stands with what was put right before, is said to have been otherwise. Minor units. */
export function correctSale(command: CorrectSale): CorrectOutcome {
  const { newId, sale, fix, voids, undone } = command;
  if (standingVoids(voids, undone).some((each) => each.sale === sale.id))
    return refuse({ code: 'correct/voided' });
  const fault = fixFault(command);
  if (fault !== null) return refuse(fault);
  const reason = command.reason.trim().slice(0, 200);
  if (reason === '') return refuse({ code: 'correct/no-reason' });
  const { day, hour } = sale;
  const said = { sale: sale.id, saleNumber: sale.number, reason, day, hour, fix };
  const drafts = eventsOf(command, fix).map((event) => {
    const body = { ...said, moves: [...movesOf(command, fix, event)] };
    return draft('sale.corrected', newId(), event, body);
  });
  return { ok: true, drafts };
}

/** Whether a line could have been of these goods: they cost as much, by the same measure, and are taxed alike. */
export const couldBe = (
  line: Pick<Row<'saleLines'>, 'price' | 'unit' | 'tax'>,
  { price, unit, taxes }: Pick<Row<'items'>, 'price' | 'unit' | 'taxes'>,
): boolean =>
  price === line.price &&
  unit === line.unit &&
  taxes.toSorted().join(' ') === Object.keys(line.tax).toSorted().join(' ');

/** Why it cannot be put right so; null where it can. */
export function fixFault(
  of: Correctable & Pick<CorrectSale, 'returns' | 'fix'>,
): CorrectRefusal | null {
  const { sale, lines, payments, returns, fix } = of;
  const same = { code: 'correct/same' } as const;
  switch (fix.is) {
    case 'way': {
      const part = payments.find(({ id }) => id === fix.part);
      if (part === undefined || part.card !== null || part.method === 'exchange')
        return { code: 'correct/card' };
      if (isHeldMethod(part.method) || isHeldMethod(fix.method)) return { code: 'correct/account' };
      if (fix.method === 'card' || fix.method === 'keyed') return { code: 'correct/card' };
      if ((fix.method === 'cash') !== (fix.drawer !== null)) return { code: 'correct/no-drawer' };
      return part.way === fix.way && part.drawer === fix.drawer && part.reference === fix.reference
        ? same
        : null;
    }
    case 'change': {
      const part = payments.find(({ id }) => id === fix.part);
      if (part === undefined || part.drawer === null) return { code: 'correct/no-drawer' };
      return changeOf(part, of) === fix.change ? same : null;
    }
    case 'customer': {
      if (sale.customer === fix.customer) return same;
      // What it brought went back with what came back, to whoever it was then.
      const brought = lines.find((line) => line.points !== 0 || hasAny(line.toward));
      return brought === undefined || returns.length === 0
        ? null
        : { code: 'correct/came-back', name: brought.name };
    }
    case 'seller': {
      if (lines.every(({ seller }) => (seller ?? null) === fix.seller)) return same;
      const back = lines.find(({ line }) => isBack(returns, line));
      return back === undefined ? null : { code: 'correct/came-back', name: back.name };
    }
    case 'item': {
      const line = lines.find((each) => each.line === fix.line);
      if (line === undefined || line.item === fix.item) return same;
      return isBack(returns, fix.line) ? { code: 'correct/came-back', name: line.name } : null;
    }
    case 'event': {
      if (sale.event === null || sale.event === fix.to) return same;
      const [line] = lines;
      if (returns.length > 0) return { code: 'correct/came-back', name: line?.name ?? sale.number };
      // Vouchers that it sold, and what it paid in, may have been spent: they are not taken back, not even to be put back.
      if (lines.some(({ account }) => account !== null)) return { code: 'correct/account' };
      // Of a slip that was paid at several events nobody knows what of it is of which.
      const isOfSeveral = of.isMoved !== true && payments.some((part) => part.event !== sale.event);
      if (isOfSeveral) return { code: 'correct/several' };
      return fix.cash !== null && payments.every(({ drawer }) => drawer === null)
        ? { code: 'correct/no-drawer' }
        : null;
    }
  }
}

const hasAny = (toward: Readonly<Record<string, number>>): boolean =>
  Object.keys(toward).length > 0;

const isBack = (returns: CorrectSale['returns'], line: number): boolean =>
  returns.some((each) => each.lines.some((back) => back.line === line));

const refuse = (refusal: CorrectRefusal): CorrectOutcome => ({ ok: false, refusal });

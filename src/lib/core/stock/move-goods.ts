/** Goods of one item that are gone, or were carried to another place: a command. */
import type { Row } from '../books/tables';
import { draft } from '../daybook/kinds';
import { GONE } from '../daybook/kinds/stock-moved';
import { goodsGone } from './do-list';
import { typedQuantity, type ListOutcome, type ListRefusal } from './set-list';

export interface MoveGoods {
  readonly newId: () => string;
  readonly item: Pick<Row<'items'>, 'id' | 'decimals' | 'cost'>;
  readonly typed: {
    readonly quantity: string;
    readonly from: string;
    /** A reason why it is gone, or a place. */
    readonly became: string;
    readonly note: string;
  };
  readonly event: string | null;
}

/** More than is there may be said to be gone: then the books were wrong, and show it. */
export function moveGoods(command: MoveGoods): ListOutcome {
  const { newId, item, typed, event } = command;
  const refuse = (refusal: ListRefusal): ListOutcome => ({ ok: false, refusal });
  const read = typedQuantity(typed.quantity, item);
  if (!read.ok) return read;
  if (read.quantity === 0) return refuse({ code: 'list/nothing-chosen' });
  const goods = [{ item: item.id, quantity: read.quantity }];
  const why = GONE.find((each) => each === typed.became);
  if (why !== undefined) {
    const costs = new Map([[item.id, item]]);
    const gone = { newId, event, place: typed.from, goods, why, costs, note: typed.note };
    return { ok: true, id: item.id, drafts: goodsGone(gone) };
  }
  if (typed.became === '') return refuse({ code: 'list/no-place' });
  if (typed.became === typed.from) return refuse({ code: 'list/same-place' });
  const body = { reason: 'moved', from: typed.from, to: typed.became, goods } as const;
  const note = typed.note.slice(0, 500);
  return {
    ok: true,
    id: item.id,
    drafts: [draft('stock.moved', newId(), event, { ...body, note })],
  };
}

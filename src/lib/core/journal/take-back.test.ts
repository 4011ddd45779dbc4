/** What comes back comes back once, whole or in parts, and leaves nothing behind. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter, step, type Step } from '../testing/arbitrary-daybook';
import { journalOf } from './index';
import { imbalance, type Posting } from './posting';
import {
  isTakeBackOf,
  netOf,
  postingsOf,
  takeBack,
  takenBackSchema,
  takePartBack,
} from './take-back';

const NOW = Date.UTC(2026, 10, 22, 9);
const sales = step.filter((each): each is Extract<Step, { does: 'sale' }> => each.does === 'sale');
/** A sale's postings, of a till that has rung up others before. */
function saleOf(what: Extract<Step, { does: 'sale' }>): readonly Posting[] {
  const writer = new DeviceWriter(1);
  const entries = writer.append(writer.steps(what, NOW), NOW);
  const read = readEntry(entries.find(({ kind }) => kind === 'sale.rung')!);
  assert.ok(read.ok);
  return journalOf(read.entry).postings;
}
const quantityOf = (postings: readonly Posting[], line: number): number =>
  postings.find((each) => each.line === line && (each.quantity ?? 0) > 0)?.quantity ?? 0;
const linesOf = (postings: readonly Posting[]): readonly number[] => [
  ...new Set(postings.flatMap(({ line }) => line ?? [])),
];

describe('a sale that comes back', () => {
  it('whole leaves nothing of it', () => {
    fc.assert(
      fc.property(sales, (what) => {
        const sale = saleOf(what);
        const { postings } = takeBack('s', sale);
        assert.equal(netOf([...sale, ...postings]).size, 0);
        assert.ok(isTakeBackOf(postings, sale));
        // Once, and not twice.
        assert.ok(!isTakeBackOf(postings, sale, postings) || netOf(sale).size === 0);
        assert.equal(
          netOf([...sale, ...takeBack('s', takeBack('s', sale).postings).postings]).size > 0,
          netOf(sale).size > 0,
        );
      }),
    );
  });

  it('in any number of returns, in any order, leaves nothing of its lines, and each return adds up', () => {
    const returns = fc.array(
      fc.record({ line: fc.nat(9), share: fc.integer({ min: 1, max: 7 }) }),
      {
        maxLength: 12,
      },
    );
    fc.assert(
      fc.property(sales, returns, fc.infiniteStream(fc.nat()), (what, some, order) => {
        const sale = saleOf(what);
        const lines = linesOf(sale);
        const gone = new Map<number, number>();
        let before: readonly Posting[] = [];
        const back = (line: number, upTo: number): void => {
          const of = quantityOf(sale, line);
          if (of === 0 || upTo <= (gone.get(line) ?? 0)) return;
          const part = takePartBack(sale, line, { quantity: upTo, of }, before);
          assert.equal(imbalance(part), null);
          gone.set(line, upTo);
          before = [...before, ...part];
        };
        for (const { line: at, share } of some) {
          const line = lines[at % lines.length]!;
          const of = quantityOf(sale, line);
          back(line, Math.min(of, (gone.get(line) ?? 0) + Math.ceil(of / share / 2)));
        }
        const rest = [...lines].sort(() => ((order.next().value as number) % 3) - 1);
        for (const line of rest) back(line, quantityOf(sale, line));
        const left = netOf([...sale.filter(({ line }) => line !== undefined), ...before]);
        assert.deepEqual([...left.values()], []);
      }),
    );
  });

  it('in part gives what the rule says: R(amount × q / Q) in all, less what came before', () => {
    const sale: readonly Posting[] = [
      { account: 'slip:s', amount: 1000, item: 'i', line: 0 },
      { account: 'sales', amount: -833, item: 'i', line: 0 },
      { account: 'tax:v@20', amount: -167, item: 'i', line: 0, tax: 'v', rate: '20' },
      { account: 'place:e', quantity: -3000, item: 'i', line: 0 },
      { account: 'place:gone:sold', quantity: 3000, item: 'i', line: 0, things: 3 },
    ];
    let before: readonly Posting[] = [];
    const slips: (number | undefined)[] = [];
    for (const quantity of [1000, 2000, 3000]) {
      const part = takePartBack(sale, 0, { quantity, of: 3000 }, before);
      assert.ok(isTakeBackOf(part, sale, before));
      slips.push(part.find(({ account }) => account === 'slip:s')?.amount);
      before = [...before, ...part];
    }
    assert.deepEqual(slips, [-333, -334, -333]);
    assert.equal(netOf([...sale, ...before]).size, 0);
  });
});

describe('what says that it takes something back', () => {
  const sale = saleOf({ does: 'sale', goods: [[1, 2]], over: 0 });
  it('in part lowers takings by what is given back, and leaves what goods had cost apart from that', () => {
    fc.assert(
      fc.property(sales, fc.nat(), (what, n) => {
        const sale = saleOf(what);
        for (const line of linesOf(sale)) {
          const of = quantityOf(sale, line);
          if (of === 0) continue;
          const taken = takePartBack(sale, line, { quantity: 1 + (n % of), of });
          const on = (...heads: readonly string[]): number =>
            taken.reduce(
              (all, { account, amount = 0 }) =>
                heads.includes(account.split(/[:@]/)[0] ?? '') ? all + amount : all,
              0,
            );
          assert.equal(on('sales', 'tax'), 0 - on('slip'));
          assert.equal(on('cost', 'goods'), 0);
        }
      }),
    );
  });

  it('is not of another sale, not more than is left, and not the same again with its own sign', () => {
    const back = takeBack('s', sale).postings;
    assert.ok(!isTakeBackOf(sale, sale));
    assert.ok(
      !isTakeBackOf(
        back.map((each) => ({ ...each, account: 'safe' as const })),
        sale,
      ),
    );
    const more = back.map((each) =>
      each.amount === undefined ? each : { ...each, amount: each.amount * 2 },
    );
    assert.ok(!isTakeBackOf(more, sale));
    assert.ok(!isTakeBackOf(back, sale, back));
  });

  it('is refused where it does not add up, on an account that there is not, or of both money and goods', () => {
    const says = (postings: readonly unknown[]): string => {
      const read = takenBackSchema.safeParse({
        of: '00000000-0000-4000-8000-000000000001',
        postings,
      });
      return read.success ? 'fits' : read.error.issues.map(({ message }) => message).join('; ');
    };
    assert.equal(says(postingsOf([takeBack('s', sale)])), 'fits');
    assert.match(says([{ account: 'sales', amount: 5 }]), /must add up to nothing, not to 5/);
    assert.match(
      says([{ account: 'place:base', item: 'i', quantity: 5 }]),
      /quantities of i must add up to nothing/,
    );
    assert.match(says([{ account: 'purse', amount: 0 }]), /an account that there is/);
    assert.match(says([{ account: 'drawer:', amount: 0 }]), /an account that there is/);
    assert.match(says([{ account: 'sales:x', amount: 0 }]), /an account that there is/);
    assert.match(says([{ account: 'safe', amount: 0, quantity: 0 }]), /and not both/);
    assert.match(says([{ account: 'safe' }]), /and not both/);
  });
});

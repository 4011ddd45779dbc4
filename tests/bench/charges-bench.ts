/** Standing charges of 5,000 customers, made in one run of the server while a device pushes. */
import { setTimeout as rest } from 'node:timers/promises';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { draft } from '../../src/lib/core/daybook/kinds';
import { VAT } from '../../src/lib/core/testing/a-sale';
import { INVOICING } from '../../src/lib/core/testing/invoice-drafts';
import { customerId, EVENT, idOf, itemId } from '../../src/lib/core/testing/made-up-business';
import { makeCharges } from '../../src/lib/server/charges/make-charges';
import { NOW, Pushing } from '../support/pushing';
import { milliseconds, type Figure } from './figures';

const CUSTOMERS = 5000;
const AT_ONCE = 250;
const PUSHES = 80;
/** Between two pushes of a device. Milliseconds. */
const APART = 60;
const TODAY = '2026-11-22';

export async function chargesFigures(): Promise<Figure[]> {
  const desk = new Pushing();
  await desk.begin([draft('business.invoicing', desk.newId(), null, INVOICING)]);
  try {
    for (let from = 0; from < CUSTOMERS; from += AT_ONCE) {
      const numbers = Array.from({ length: AT_ONCE }, (_, n) => from + n + 1);
      await desk.push(numbers.map((n) => desk.customer(n)));
      await desk.push(numbers.map((n) => charge(desk, n)));
    }
    await pushes(desk, 20);
    const alone = [...(await pushes(desk, PUSHES))];
    const began = performance.now();
    let isRunning = true;
    const run = makeCharges(desk.t.database, desk.books, NOW).finally(() => (isRunning = false));
    await rest(300);
    const beside: number[] = [];
    // As long as it runs, however fast the machine is.
    while (isRunning && beside.length < PUSHES * 20) beside.push(...(await pushes(desk, 10)));
    const made = await run;
    const took = performance.now() - began;
    if (made !== CUSTOMERS) throw new Error(`${String(made)} charges were made`);
    return [
      {
        what: `a push while 5,000 standing charges are made (in ${(took / 1000).toFixed(0)} s)`,
        is: milliseconds(mean(beside)),
        against: `${milliseconds(mean(alone))} with nothing else to do`,
        ratio: mean(beside) / mean(alone),
        target: { most: 1.25 },
      },
    ];
  } finally {
    await desk.t.end();
  }
}

const mean = (all: readonly number[]): number =>
  all.reduce((one, each) => one + each, 0) / all.length;

function charge({ newId }: Pushing, n: number): Draft {
  return draft('charge.set', newId(), null, {
    ...{ id: idOf(95, n), customer: customerId(n), unit: 'month', every: 1 },
    lines: [{ name: 'A box', quantity: 1000, price: 2500, taxes: [VAT.id] }],
    ...{ from: TODAY, notBefore: TODAY, until: null, country: 'GB', way: null, consent: null },
    ...{ isMailed: false, isActive: true },
  });
}

/** One entry each, now and then, as a stall that trades sends them. @returns How long each took. */
async function pushes(desk: Pushing, many: number): Promise<number[]> {
  const took: number[] = [];
  for (let n = 0; n < many; n += 1) {
    await rest(APART);
    const load = draft('stock.moved', desk.newId(), EVENT, {
      ...{ reason: 'loaded', from: 'base', to: EVENT, note: '' },
      goods: [{ item: itemId(1), quantity: 1000 }],
    });
    const began = performance.now();
    await desk.push([load]);
    took.push(performance.now() - began);
  }
  return took;
}

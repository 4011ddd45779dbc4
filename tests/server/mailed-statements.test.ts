/** A maker's statement that is mailed by the server: by right, once, with its PDF, to the address in the books. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { draft, type BodyOf } from '../../src/lib/core/daybook/kinds';
import { EVENT, idOf, item, itemId, TAX } from '../../src/lib/core/testing/made-up-business';
import { sendReceipts } from '../../src/lib/server/receipts/send-receipts';
import { HELPER, NOW, Pushing } from '../support/pushing';
import { SentMail } from '../support/sent-mail';

const desk = new Pushing();
const { push } = desk;
const newId = (): string => desk.newId();
const [MAKER, IDLE] = [idOf(21, 7), idOf(21, 8)];
const MINUTE = 61_000;

const maker = (id: string, email: string): Draft =>
  draft('maker.set', newId(), null, {
    ...{ id, number: id === MAKER ? 7 : 8, name: 'Fern', commission: '30', email, isActive: true },
  });
const mailed = (id: string, before = 0, event = EVENT): Draft =>
  draft('maker.mailed', newId(), event, { event, maker: id, before });
/** A sale of one thing of the maker's, as a till writes it. */
function sale(): readonly Draft[] {
  return desk.writers[0]!.sale([[1, 2]], 0, NOW).map((each) => {
    if (each.kind !== 'sale.rung') return each;
    const body = each.body as BodyOf<'sale.rung'>;
    const lines = body.lines.map((line) => ({ ...line, maker: MAKER }));
    return { ...each, body: { ...body, lines } };
  });
}

const { sent, mailer } = new SentMail();
const send = async (minutes: number): Promise<number> =>
  await sendReceipts(desk.t.database, desk.books, { mailer, texts: null }, NOW + minutes * MINUTE);

before(async () => {
  const { setStamp: _stamp, ...mug } = item(1, 105);
  await desk.begin([
    maker(MAKER, ''),
    maker(IDLE, 'idle@pots.example'),
    draft('item.set', newId(), null, {
      ...{ ...mug, id: itemId(1), barcodes: [], taxes: [TAX], maker: MAKER },
    }),
  ]);
  await desk.ownerReadsMail();
  assert.deepEqual(await push(sale()), []);
});
after(() => desk.t.end());

describe('a statement that is mailed to a maker', () => {
  it('is asked for by right, and about an event that there is', async () => {
    assert.deepEqual(await push([mailed(MAKER)], HELPER), ['right/missing']);
    assert.deepEqual(await push([mailed(MAKER, 0, idOf(2, 9))]), ['stage/event']);
    assert.equal(await send(0), 0);
    assert.deepEqual(sent, []);
  });

  it('waits for an address, and is sent once, though two asked who had not heard of each other', async () => {
    assert.deepEqual(await push([mailed(MAKER), mailed(MAKER)]), []);
    assert.equal(await send(1), 1);
    assert.deepEqual(await push([maker(MAKER, 'fern@pots.example'), ...sale()]), []);
    assert.equal(await send(3), 0);
    assert.equal(await send(9), 0);
    assert.equal(sent.length, 1);
    const [mail] = sent;
    assert.equal(mail!.to, 'fern@pots.example');
    assert.match(mail!.subject, /^Your goods at /);
    // Both sales, as it stands when it goes out.
    assert.match(mail!.text, /\n4 × Thing 1/);
    assert.match(mail!.text, /\nTo pay: £/);
    const [pdf] = mail!.attachments!;
    assert.equal((pdf!.content as Buffer).subarray(0, 5).toString(), '%PDF-');
  });

  it('can be sent again; to a maker of whom nothing was sold none goes', async () => {
    assert.deepEqual(await push([mailed(MAKER, 2), mailed(IDLE)]), []);
    assert.equal(await send(10), 0);
    assert.deepEqual(
      sent.map(({ to }) => to),
      ['fern@pots.example', 'fern@pots.example'],
    );
  });
});

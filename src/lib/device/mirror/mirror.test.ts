/** What a mirror says of a device whose database is gone, also after a death in the middle of a line. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { DeviceWriter } from '../../core/testing/arbitrary-daybook';
import { BUSINESS, deviceId } from '../../core/testing/made-up-business';
import { DeviceDatabase, type Head } from '../database';
import { DeviceDaybook, ownEntriesAfter } from '../daybook';
import { takeBack } from './mirror';
import { mirrorFrom, type MirrorLine } from './mirror-file';
import { asText, reachOf } from './mirror-lines';

const NOW = Date.UTC(2026, 10, 22, 9);
const identity = { business: BUSINESS, device: deviceId(1), number: 1, token: 'x' };
const open = (): DeviceDatabase =>
  new DeviceDatabase('test', { indexedDB: new IDBFactory(), IDBKeyRange });

/** A device with three sales, and the lines that a mirror of it would have, append by append. */
async function device(): Promise<{ lines: readonly MirrorLine[]; head: Head }> {
  const db = open();
  await db.write('identity', identity);
  const daybook = new DeviceDaybook(db, { now: () => NOW });
  const writer = new DeviceWriter(1);
  const lines: MirrorLine[] = [{ identity, erasures: 0 }];
  for (let sale = 0; sale < 3; sale += 1) {
    await daybook.append(() => ({ ok: true, drafts: writer.sale([[1, 2]], 0, NOW) }));
    const block = (await db.entries.toArray()).at(-1)!;
    lines.push({ block: { ...block, entries: [...block.entries] } });
    lines.push({ head: (await db.read('head'))!, sent: 0 });
  }
  return { lines, head: (await db.read('head'))! };
}

describe('the mirror of a device', () => {
  it('gives a device back that lost its database, with all that was not sent', async () => {
    const { lines, head } = await device();
    const db = open();
    assert.equal(await takeBack(db, mirrorFrom(asText(lines))), true);
    assert.deepEqual(await db.read('identity'), identity);
    assert.deepEqual(await db.read('head'), head);
    assert.equal(await db.read('forgotten'), 'by the browser');
    const entries = await ownEntriesAfter(db, 0, 100);
    assert.deepEqual(
      entries.map(({ seq }) => seq),
      Array.from({ length: head.seq }, (_, at) => at + 1),
    );
    // Its chain and its numbers go on where they were.
    const daybook = new DeviceDaybook(db, { now: () => NOW + 1 });
    const writer = new DeviceWriter(1);
    await daybook.append(({ saleNumber }) => {
      assert.equal(saleNumber, 4);
      return { ok: true, drafts: writer.sale([[1, 2]], 0, NOW) };
    });
    const [next] = await ownEntriesAfter(db, head.seq, 1);
    assert.equal(next?.prev, head.hash);
  });

  it('holds up to the last whole append, wherever the power went', async () => {
    const { lines } = await device();
    const text = asText(lines);
    const ends = [3, 5, 7].map((count) => asText(lines.slice(0, count)).length);
    for (let cut = 0; cut <= text.length; cut += 97) {
      const mirror = mirrorFrom(text.slice(0, cut));
      const whole = ends.filter((end) => end <= cut).length;
      if (cut < asText(lines.slice(0, 1)).length - 1) assert.equal(mirror, null);
      else
        assert.ok(
          mirror!.blocks.length === whole ||
            // The last line lacks its end alone.
            mirror!.blocks.length === ends.filter((end) => end - 1 <= cut).length,
          `${String(cut)}: ${String(mirror!.blocks.length)} of ${String(whole)}`,
        );
    }
  });

  it('reaches as far as it says only where it is whole: behind half a line nothing is written', async () => {
    const { lines, head } = await device();
    const text = asText(lines);
    const reach = { device: identity.device, erasures: 0, upTo: head.seq };
    assert.deepEqual(reachOf(text), reach);
    assert.equal(reachOf(''), null);
    for (let cut = 1; cut < text.length; cut += 1) {
      const part = text.slice(0, cut);
      const found = reachOf(part);
      // What stands behind it then is found again by who reads it; the same lines may stand twice.
      if (found !== null) assert.deepEqual(mirrorFrom(part + text), mirrorFrom(text), String(cut));
      assert.equal(found !== null, part.endsWith('\n'), String(cut));
      assert.equal(reachOf(part + text), null, String(cut));
    }
    const head0 = lines.find((line) => 'head' in line)!;
    assert.equal(reachOf(asText([head0])), null);
    assert.equal(reachOf(`${text}null\n`), null);
    assert.equal(reachOf(`{"identity":{"device":4}}\n`), null);
    assert.equal(reachOf(`{"identity":{"device":"d"},"erasures":"1"}\n`), null);
  });

  it('leaves out what has been sent, and does nothing to a device that is there', async () => {
    const { lines, head } = await device();
    const sent = mirrorFrom(asText([...lines, { head, sent: head.seq }]));
    assert.deepEqual(sent?.blocks, []);
    const db = open();
    await db.write('identity', { ...identity, number: 7 });
    assert.equal(await takeBack(db, sent), false);
    assert.equal((await db.read('identity'))?.number, 7);
    assert.equal(await takeBack(open(), null), false);
    assert.equal(mirrorFrom('not a mirror\n'), null);
  });
});

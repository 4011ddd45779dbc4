import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import type { Entry } from './entry';
import { readEntry, upgraded } from './read-entry';

const now = Date.UTC(2026, 10, 22, 9);
const writer = new DeviceWriter(1);
const [payment, sale] = writer.append(writer.sale([[1, 2]], 40, now), now) as [Entry, Entry];
const withBody = (entry: Entry, body: object): Entry => ({
  ...entry,
  body: { ...entry.body, ...body },
});

describe('reading an entry', () => {
  it('knows its kind', () => assert.equal(readEntry(sale).ok, true));

  const faults = [
    {
      about: 'a kind from the future',
      entry: { ...sale, kind: 'sale.beamed' },
      code: 'kind/unknown',
    },
    { about: 'a newer version of a known kind', entry: { ...sale, v: 99 }, code: 'kind/newer' },
    {
      about: 'a kind that is a word of the language',
      entry: { ...sale, kind: 'constructor' },
      code: 'kind/unknown',
    },
    {
      about: 'a total that is not its lines',
      entry: withBody(sale, { total: 1 }),
      code: 'body/wrong',
    },
    {
      about: 'an amount with a fraction',
      entry: withBody(payment, { change: 0.5 }),
      code: 'body/wrong',
    },
    {
      about: 'change that does not add up',
      entry: withBody(payment, { change: 1 }),
      code: 'body/wrong',
    },
    { about: 'a field nobody knows', entry: withBody(payment, { tipp: 1 }), code: 'body/wrong' },
  ];
  for (const { about, entry, code } of faults) {
    it(`says what is wrong: ${about}`, () => {
      const read = readEntry(entry);
      assert.equal(read.ok ? 'read' : read.fault.code, code);
    });
  }

  it('says where', () => {
    const read = readEntry(withBody(payment, { clears: 'much' }));
    assert.ok(!read.ok && read.fault.code === 'body/wrong');
    assert.equal(read.fault.where, 'clears');
  });

  it('brings older shapes up to date, one version at a time', () => {
    const spec = {
      v: 3,
      upgrades: {
        1: (body: Record<string, unknown>) => ({ ...body, second: true }),
        2: (body: Record<string, unknown>) => ({ ...body, third: body['second'] }),
      },
    };
    assert.deepEqual(upgraded({}, 1, spec), { second: true, third: true });
    assert.deepEqual(upgraded({}, 3, spec), {});
  });
});

import 'fake-indexeddb/auto';
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { DeviceDatabase } from '../database';
import { notePrinted, printedName } from './printed';

describe('a receipt that is printed', () => {
  let db: DeviceDatabase;
  before(async () => {
    db = new DeviceDatabase('printed-test');
    await db.open();
  });
  after(() => {
    db.close();
  });

  it('is the first once, whoever asks at the same moment; one of another form is another', async () => {
    const [gift, own] = [printedName('s', true, 0), printedName('s', false, 2)];
    const both = await Promise.all([notePrinted(db, own), notePrinted(db, own)]);
    assert.deepEqual(both.sort(), [false, true]);
    assert.equal(await notePrinted(db, gift), false);
    assert.equal(await notePrinted(db, gift), true);
    assert.notEqual(printedName('s', false, 0), printedName('s', false, 1));
  });
});

import assert from 'node:assert/strict';
import { it } from 'node:test';
import { chequeReference } from './cheque';

it('notes a cheque by number and bank; the bank alone is no number', () => {
  assert.equal(chequeReference(' 000123 ', 'Tarn Bank', true), '000123, Tarn Bank');
  assert.equal(chequeReference('000123', ' ', true), '000123');
  assert.equal(chequeReference('', 'Tarn Bank', true), '');
  assert.equal(chequeReference('', 'Tarn Bank', false), 'Tarn Bank');
  assert.ok(chequeReference('9'.repeat(200), 'b'.repeat(200), true).length <= 80);
});

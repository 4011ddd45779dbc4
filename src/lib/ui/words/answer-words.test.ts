import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { NO_ANSWER, wrongOf } from './answer-words';

describe('what is said of a question to the server', () => {
  it('is nothing where it was answered, and the server’s own words where it refused', () => {
    assert.equal(wrongOf({ came: 'answer' }), '');
    const refusal = { message: 'That day is not over.' };
    assert.equal(wrongOf({ came: 'refusal', refusal }, 'No network.'), 'That day is not over.');
  });
  it('tells a network that is away from one where somebody else answers', () => {
    assert.equal(wrongOf({ came: 'nothing', why: 'silence' }), NO_ANSWER);
    assert.equal(wrongOf({ came: 'nothing', why: 'silence' }, 'No network.'), 'No network.');
    const unclear = wrongOf({ came: 'nothing', why: 'unclear' }, 'No network.');
    const notNow = { came: 'nothing', why: 'not now', says: 'It sends no mail.' } as const;
    assert.equal(wrongOf(notNow, 'No network.'), 'It sends no mail.');
    assert.match(unclear, /^What answered was not Stall Till .*sign-in/);
  });
  it('says what holds without an answer behind every reason that there is none, and only there', () => {
    const still = 'These are the device’s own.';
    const silence = { came: 'nothing', why: 'silence' } as const;
    const notNow = { came: 'nothing', why: 'not now', says: 'It sends no mail.' } as const;
    const unclear = { came: 'nothing', why: 'unclear' } as const;
    assert.equal(wrongOf(silence, 'No network.', still), `No network. ${still}`);
    assert.equal(wrongOf(notNow, 'No network.', still), `It sends no mail. ${still}`);
    assert.equal(wrongOf(unclear, 'No network.', still), `${wrongOf(unclear)} ${still}`);
    const refusal = { message: 'That day is not over.' };
    assert.equal(wrongOf({ came: 'refusal', refusal }, 'No network.', still), refusal.message);
    assert.equal(wrongOf({ came: 'answer' }, 'No network.', still), '');
  });
});

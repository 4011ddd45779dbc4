import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { plainWords } from './receipt-to-send';

describe('what is typed into a receipt that is sent', () => {
  for (const [typed, is] of [
    ['Larkmoss Plants', 'Larkmoss Plants'],
    ['Moss, 0.5 l, 2.5 kg', 'Moss, 0.5 l, 2.5 kg'],
    ['open 9.30 to 16.00', 'open 9.30 to 16.00'],
    ['pay at https://evil.example/x', 'pay at evil·example/x'],
    ['www.evil.example', 'www·evil·example'],
    ['write to help@bank.example', 'write to help at bank·example'],
    ['Your bank\r\nSubject: pay', 'Your bank Subject: pay'],
    ['javascript:alert(1)', 'alert(1)'],
    ['e\u200bvil', 'e vil'],
    ['Note: keep dry', 'Note: keep dry'],
  ] as const)
    it(`${JSON.stringify(typed)} is ${is}`, () => assert.equal(plainWords(typed, 60), is));

  it('is one line without an address, however it was typed, and never longer than it may be', () => {
    const part = fc.constantFrom(
      'http://',
      'https:',
      '//',
      '.',
      '@',
      'evil',
      'example',
      '\n',
      'a',
      '1',
      ' ',
    );
    fc.assert(
      fc.property(fc.array(part, { maxLength: 30 }), (parts) => {
        const said = plainWords(parts.join(''), 60);
        assert.ok(!/[\r\n@]|\/\/|[a-z]\.[a-z]/i.test(said), said);
        assert.ok(said.length <= 60);
      }),
    );
  });
});

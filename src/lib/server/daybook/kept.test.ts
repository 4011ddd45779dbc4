import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { asFault, whySchema } from './kept';

const kept = (message: string) =>
  ({
    id: '00000000-0000-7000-8000-000600000001',
    state: 'unfit',
    code: 'body/unfit',
    message,
  }) as const;

describe('why an entry is not simply applied', () => {
  it('stands beside it as JSON that fits its column, cut where it must be', () => {
    const text = fc.string({ unit: 'binary', maxLength: 1500 });
    fc.assert(
      fc.property(
        fc.oneof(
          text,
          text.map((each) => each.repeat(3)),
        ),
        (message) => {
          const fault = asFault(kept(message));
          assert.ok(fault.length <= 1000);
          const why = whySchema.parse(JSON.parse(fault));
          assert.equal(why.code, 'body/unfit');
          const isWhole = JSON.stringify(kept(message)).length <= 1000;
          if (isWhole) assert.equal(why.message, message);
          else assert.ok(why.message.endsWith('…') && message.startsWith(why.message.slice(0, -1)));
        },
      ),
    );
  });

  it('is nothing where all is well', () => {
    assert.equal(asFault(null), '');
  });
});

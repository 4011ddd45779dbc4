import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { idOf, personId } from '../testing/made-up-business';
import { setPay } from './set-pay';

const pay = (typedWage: string, typedCommission: string) =>
  setPay({
    ...{ newId: () => idOf(90, 1), person: personId(1), typedWage, typedCommission },
    currency: 'GBP',
  });
const said = (made: ReturnType<typeof pay>) =>
  made.ok ? made.drafts.map(({ body }) => body) : made.refusal.code;

describe('what somebody is paid', () => {
  it('is a wage an hour and a percentage, with nothing for nothing typed', () => {
    const person = personId(1);
    assert.deepEqual(said(pay('12,50', '7,5 %')), [{ person, wage: 1250, commission: '7.5' }]);
    assert.deepEqual(said(pay('', '')), [{ person, wage: 0, commission: '0' }]);
  });

  it('is refused where it is neither', () => {
    assert.equal(said(pay('lots', '1')), 'pay/wage');
    assert.equal(said(pay('12', '101')), 'pay/commission');
    assert.equal(said(pay('12', 'half')), 'pay/commission');
  });
});

import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { chainEntry, EMPTY_CHAIN, headAfter } from '../daybook/chain';
import { readEntry } from '../daybook/read-entry';
import { denominationsOf } from '../money/currency';
import { PeopleHistory } from '../people/people-history';
import { BUSINESS, deviceId, idOf } from '../testing/made-up-business';
import { COUNTRIES, countryOf } from './countries';
import { foundBusiness } from './found-business';

const founded = (code: string, currency?: string) => {
  const country = COUNTRIES.find((each) => each.code === code)!;
  let ids = 0;
  return foundBusiness({
    newId: () => idOf(9, (ids += 1)),
    name: 'Fernbank Jams',
    owner: { id: idOf(8, 1), name: 'Wren' },
    country,
    currency: currency ?? country.currency,
    timeZone: country.timeZone,
  });
};

describe('founding a business', () => {
  for (const { code, name, cashStep, currency } of COUNTRIES) {
    it(`in ${name} gives entries that can be read and that the server lets pass`, () => {
      let head = EMPTY_CHAIN;
      const people = new PeopleHistory();
      for (const each of founded(code)) {
        const by = idOf(8, 1);
        const writer = { business: BUSINESS, device: deviceId(1), by, now: 1_700_000_000_000 };
        const entry = chainEntry(each, head, writer);
        head = headAfter(entry);
        const read = readEntry(entry);
        assert.ok(read.ok, JSON.stringify(read));
        assert.equal(people.judge(read.entry), null);
      }
      // What is rounded to must be a coin that there is, or nothing is rounded.
      assert.ok(cashStep === 1 || denominationsOf(currency).includes(cashStep), String(cashStep));
    });
  }
  it('with a foreign currency does not round to coins of the country', () => {
    assert.equal(founded('CH', 'EUR')[0]?.body['cashStep'], 1);
  });
  it('guesses the country from the language, where it says one', () => {
    assert.deepEqual(
      ['en-GB', 'de-ch', 'en', 'fr-XX'].map((tag) => countryOf(tag)?.code ?? null),
      ['GB', 'CH', null, null],
    );
  });
});

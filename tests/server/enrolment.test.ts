import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { randomBytes } from 'node:crypto';
import { idOf } from '../../src/lib/core/testing/made-up-business';
import { migrate } from '../../src/lib/server/database/migrate';
import { testDatabase, type TestDatabase } from '../support/test-database';

const now = Date.UTC(2026, 10, 22, 10);
const business = idOf(1, 9);
const token = (): string => randomBytes(32).toString('hex');
let t: TestDatabase;
let devices = 0;
const newDevice = (): string => idOf(55, (devices += 1));

before(async () => {
  t = await testDatabase();
});
after(() => t.end());

describe('enrolling a device', () => {
  it('gives each device of a business the next number', async () => {
    const numbers: number[] = [];
    for (let n = 0; n < 3; n += 1) {
      const code = await t.enrolment.makeCode(business, now, 1000);
      const outcome = await t.enrolment.enrol(code, newDevice(), token(), now);
      assert.ok(outcome.ok);
      numbers.push(outcome.number);
    }
    assert.deepEqual(numbers, [1, 2, 3]);
  });

  it('reads a code however it is typed', async () => {
    const code = await t.enrolment.makeCode(business, now, 1000);
    const typed = code.toLowerCase().replace('-', ' ');
    assert.equal((await t.enrolment.enrol(typed, newDevice(), token(), now)).ok, true);
  });

  it('answers the same again when the answer was lost', async () => {
    const [code, device, mine] = [
      await t.enrolment.makeCode(business, now, 1000),
      newDevice(),
      token(),
    ];
    const first = await t.enrolment.enrol(code, device, mine, now);
    assert.deepEqual(await t.enrolment.enrol(code, device, mine, now + 5000), first);
  });

  const refusals = [
    [
      'a code nobody made',
      'code/unknown',
      async () => t.enrolment.enrol('AAAAA-BBBBB', newDevice(), token(), now),
    ],
    [
      'a code that has run out',
      'code/expired',
      async () =>
        t.enrolment.enrol(
          await t.enrolment.makeCode(business, now, 1000),
          newDevice(),
          token(),
          now + 1000,
        ),
    ],
    [
      'a code that was used',
      'code/used',
      async () => {
        const code = await t.enrolment.makeCode(business, now, 1000);
        await t.enrolment.enrol(code, newDevice(), token(), now);
        return await t.enrolment.enrol(code, newDevice(), token(), now);
      },
    ],
    [
      'a device that is known under another token',
      'device/known',
      async () => {
        const device = newDevice();
        await t.enrolment.enrol(
          await t.enrolment.makeCode(business, now, 1000),
          device,
          token(),
          now,
        );
        return await t.enrolment.enrol(
          await t.enrolment.makeCode(business, now, 1000),
          device,
          token(),
          now,
        );
      },
    ],
  ] as const;
  for (const [about, code, attempt] of refusals) {
    it(`refuses ${about}`, async () => {
      const outcome = await attempt();
      assert.equal(outcome.ok ? 'enrolled' : outcome.refusal.code, code);
    });
  }

  it('lets one code enrol one device when two try at the same moment', async () => {
    const code = await t.enrolment.makeCode(business, now, 1000);
    const outcomes = await Promise.all(
      [1, 2, 3].map(() => t.enrolment.enrol(code, newDevice(), token(), now)),
    );
    assert.equal(outcomes.filter(({ ok }) => ok).length, 1);
  });

  it('knows a device by its token, until it is shut out', async () => {
    const [device, mine] = [newDevice(), token()];
    const outcome = await t.enrolment.enrol(
      await t.enrolment.makeCode(business, now, 1000),
      device,
      mine,
      now,
    );
    assert.ok(outcome.ok);
    const { number } = outcome;
    const known = { business, device, number, isShutOut: false };
    assert.deepEqual(await t.enrolment.identify(mine), known);
    assert.equal(await t.enrolment.identify(token()), 'unknown');
    await t.database.sequelize.query('UPDATE access_devices SET isShutOut = 1 WHERE device = ?', {
      replacements: [device],
    });
    assert.deepEqual(await t.enrolment.identify(mine), { ...known, isShutOut: true });
  });
});

describe('migrations', () => {
  it('run once, also when several processes start together', async () => {
    const ran = await Promise.all([1, 2, 3].map(() => migrate(t.database.sequelize)));
    assert.deepEqual(ran.flat(), []);
  });
});

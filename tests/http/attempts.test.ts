/** What must fail: guesses, replays, stolen cookies, other sites, and any body at all. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import fc from 'fast-check';
import { startApplication } from '../../scripts/setup/application.mjs';
import { HEADERS } from '../../scripts/setup/security-headers.mjs';
import { freePort } from '../../scripts/setup/ports.mjs';
import { LARGEST_BODY } from '../../src/lib/core/daybook/sync-messages';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { BUSINESS, deviceId, idOf } from '../../src/lib/core/testing/made-up-business';
import { Accounts } from '../../src/lib/server/access/accounts';
import { beginReset } from '../../src/lib/server/access/forgotten';
import { beginVerification } from '../../src/lib/server/access/verification';
import { select } from '../../src/lib/server/database/select';
import { testDatabase, type TestDatabase } from '../support/test-database';

const PASSWORD = 'three quiet herons';
const EMAIL = 'owner@stall.example';
let t: TestDatabase;
let app: Awaited<ReturnType<typeof startApplication>>;
let token: string;

before(async () => {
  t = await testDatabase();
  token = await t.enrol(BUSINESS, deviceId(1));
  await new Accounts(t.database, t.enrolment).addOwner(BUSINESS, EMAIL, PASSWORD, Date.now());
  app = await startApplication({ databaseUrl: t.url, port: await freePort(), quiet: true });
});
after(async () => {
  await app.stop();
  await t.end();
});

interface Asking {
  readonly cookie?: string;
  readonly bearer?: string;
  readonly origin?: string | null;
  readonly method?: string;
}

async function post(path: string, body: unknown, asking: Asking = {}): Promise<Response> {
  const origin = asking.origin === undefined ? app.origin : asking.origin;
  return await fetch(app.origin + path, {
    method: asking.method ?? 'POST',
    headers: {
      'content-type': 'application/json',
      ...(origin === null ? {} : { origin }),
      ...(asking.cookie === undefined ? {} : { cookie: asking.cookie }),
      ...(asking.bearer === undefined ? {} : { authorization: `Bearer ${asking.bearer}` }),
    },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  });
}
const codeOf = async (response: Response): Promise<unknown> =>
  ((await response.json()) as { code?: unknown }).code;
const get = async (path: string, cookie: string): Promise<number> =>
  (await fetch(app.origin + path, { headers: { cookie } })).status;

async function signedIn(): Promise<string> {
  const response = await post('/api/account/sign-in', { email: EMAIL, password: PASSWORD });
  assert.equal(response.status, 200);
  return response.headers.getSetCookie().find((each) => each.startsWith('__Host-stall-till='))!;
}
const pairOf = (cookie: string): string => cookie.split(';')[0]!;

describe('a session', () => {
  it('is a cookie that scripts, other sites and other hosts never get', async () => {
    const cookie = await signedIn();
    assert.match(cookie, /^__Host-stall-till=[0-9a-f]{64};/);
    for (const part of ['HttpOnly', 'Secure', 'SameSite=Strict', 'Path=/']) {
      assert.ok(cookie.includes(part), part);
    }
    assert.ok(!/Domain=/i.test(cookie));
  });

  it('is worth nothing to a thief after its owner has signed out', async () => {
    const cookie = pairOf(await signedIn());
    assert.equal(await get('/api/account', cookie), 200);
    assert.equal((await post('/api/account/sign-out', {}, { cookie })).status, 200);
    assert.equal(await get('/api/account', cookie), 401);
  });

  it('ends elsewhere when the password changes, and the old password opens nothing', async () => {
    const [mine, elsewhere] = [pairOf(await signedIn()), pairOf(await signedIn())];
    const next = 'four loud herons';
    const change = (current: string, to: string, cookie: string) =>
      post('/api/account/password', { current, next: to }, { cookie });
    assert.equal(await codeOf(await change('not it at all', next, mine)), 'password/wrong');
    assert.equal(await codeOf(await change(PASSWORD, 'password123', mine)), 'password/common');
    assert.equal((await change(PASSWORD, next, mine)).status, 200);
    assert.deepEqual(
      [await get('/api/account', mine), await get('/api/account', elsewhere)],
      [200, 401],
    );
    const old = await post('/api/account/sign-in', { email: EMAIL, password: PASSWORD });
    assert.equal(old.status, 401);
    assert.equal((await change(next, PASSWORD, mine)).status, 200);
  });

  it('is kept as a hash, and so is the password', async () => {
    const cookie = pairOf(await signedIn()).split('=')[1]!;
    for (const table of ['access_sessions', 'access_owners', 'access_tries']) {
      const text = JSON.stringify(await select(t.database, `SELECT * FROM ${table}`, []));
      assert.ok(!text.includes(cookie) && !text.includes(PASSWORD), table);
    }
    const [owner] = await select<{ password: string }>(
      t.database,
      'SELECT * FROM access_owners',
      [],
    );
    assert.match(owner!.password, /^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  });
});

/** Somebody who signs up, with all that only they have. */
const newcomer = (email: string, device: number) => ({
  email,
  password: 'moss under ladder',
  business: 'Fernbank Jams',
  device: deviceId(device),
  token: device.toString(16).padStart(64, 'c'),
  key: device.toString(16).padStart(64, 'k').replaceAll('k', '9'),
});

describe('a business of somebody else', () => {
  const account = async (cookie: string): Promise<unknown> =>
    (await (await fetch(`${app.origin}/api/account`, { headers: { cookie } })).json()) as unknown;

  it('is not taken over by a sign-up that names its owner', async () => {
    const [victim] = await select<{ owner: string }>(
      t.database,
      'SELECT owner FROM access_owners WHERE email = ?',
      [EMAIL],
    );
    const named = { ...newcomer('thief@stall.example', 70), owner: victim!.owner };
    const said = await post('/api/account/sign-up', named);
    assert.deepEqual([said.status, said.headers.get('set-cookie')], [422, null]);
  });

  it('is not taken over by repeating its sign-up, not even with its address and password', async () => {
    const first = newcomer('first@stall.example', 71);
    assert.equal((await post('/api/account/sign-up', first)).status, 200);
    for (const change of [
      { key: 'f'.repeat(64) },
      { device: deviceId(72), token: 'e'.repeat(64) },
      { token: 'e'.repeat(64) },
      { password: 'moss over ladder' },
    ]) {
      const said = await post('/api/account/sign-up', { ...first, ...change });
      assert.deepEqual([said.status, said.headers.get('set-cookie')], [409, null]);
    }
    await t.database.sequelize.query('UPDATE access_owners SET made = ? WHERE email = ?', {
      replacements: [new Date(Date.now() - 25 * 3_600_000).toISOString(), first.email],
    });
    assert.equal((await post('/api/account/sign-up', first)).status, 409, 'a day later');
  });

  it('is told from one’s own by the stored account alone, also when two ask at once', async () => {
    const mine = newcomer('twice@stall.example', 73);
    const both = await Promise.all([0, 1].map(() => post('/api/account/sign-up', mine)));
    assert.deepEqual(
      both.map(({ status }) => status),
      [200, 200],
    );
    for (const response of both) {
      const cookie = pairOf(
        response.headers.getSetCookie().find((each) => each.includes('till='))!,
      );
      assert.equal(((await account(cookie)) as { email: string }).email, mine.email);
    }
  });

  it('has an account that is not called as any person of it is', async () => {
    const rows = await select<{ owner: string }>(t.database, 'SELECT owner FROM access_owners', []);
    const text = JSON.stringify(rows);
    for (const { device, token } of [newcomer('x', 70), newcomer('x', 71), newcomer('x', 73)])
      assert.ok(!text.includes(device) && !text.includes(token));
    // What the till knows of its owner is a person; the account's id was made here.
    assert.equal(
      (
        await select(
          t.database,
          'SELECT id FROM books_staff s JOIN access_owners o ON o.owner = s.id',
          [],
        )
      ).length,
      0,
    );
  });
});

describe('guessing', () => {
  const guess = (email: string, cookie?: string) =>
    post(
      '/api/account/sign-in',
      { email, password: 'not it at all' },
      cookie === undefined ? {} : { cookie },
    );
  const clear = () => t.database.sequelize.query('DELETE FROM access_tries');

  it('at many accounts from one address is counted by the address', async () => {
    await clear();
    const statuses = new Set<number>();
    for (let n = 0; n < 66; n += 6) {
      const six = [0, 1, 2, 3, 4, 5].map((k) => guess(`spray${String(n + k)}@stall.example`));
      for (const { status } of await Promise.all(six)) statuses.add(status);
    }
    assert.deepEqual([...statuses].sort(), [401, 429]);
    assert.equal((await guess('one-more@stall.example')).status, 429);
    await clear();
  });

  it('does not keep an owner out who has signed in on this browser before', async () => {
    await clear();
    const signing = await post('/api/account/sign-in', { email: EMAIL, password: PASSWORD });
    const known = pairOf(signing.headers.getSetCookie().find((each) => each.includes('known='))!);
    for (let n = 0; n < 12; n += 1) await guess(EMAIL);
    assert.equal((await guess(EMAIL)).status, 429, 'a stranger waits');
    const mine = { email: EMAIL, password: PASSWORD };
    assert.equal((await post('/api/account/sign-in', mine)).status, 429, 'so does a new browser');
    assert.equal((await post('/api/account/sign-in', mine, { cookie: known })).status, 200);
    // The lane is this account's alone, and it counts as well.
    const elsewhere = await post(
      '/api/account/sign-in',
      { ...mine, email: 'first@stall.example' },
      { cookie: known },
    );
    assert.equal(elsewhere.status, 401);
    const statuses: number[] = [];
    for (let n = 0; n < 11; n += 1) statuses.push((await guess(EMAIL, known)).status);
    assert.deepEqual(statuses, [...Array<number>(10).fill(401), 429]);
    await clear();
  });

  it('codes goes on being counted when an old enrolment is asked for again', async () => {
    await clear();
    const code = await t.enrolment.makeCode(BUSINESS, Date.now(), 60_000);
    const mine = { code, device: deviceId(80), token: '8'.repeat(64) };
    assert.equal((await post('/api/enrol', mine)).status, 200);
    const wrong = { code: 'AAAAA-AAAAA', device: deviceId(81), token: '7'.repeat(64) };
    const statuses: number[] = [];
    for (let n = 0; n < 22; n += 1) {
      statuses.push((await post('/api/enrol', wrong)).status);
      await post('/api/enrol', mine);
    }
    assert.deepEqual(statuses, [...Array<number>(20).fill(409), 429, 429]);
    await clear();
  });
});

describe('a password that is set anew', () => {
  const PASSKEY =
    'INSERT INTO access_passkeys (credential, id, owner, publicKey, counter, transports, name, made) ' +
    "SELECT ?, ?, owner, '', 0, '[]', 'Not mine', '' FROM access_owners WHERE email = ?";
  const many = async (table: string): Promise<number> =>
    (
      await select(
        t.database,
        `SELECT owner FROM ${table} t WHERE owner = (SELECT owner FROM access_owners WHERE email = ?)`,
        [EMAIL],
      )
    ).length;

  it('ends sessions, links and known browsers, and passkeys if that is wanted', async () => {
    const cookie = pairOf(await signedIn());
    await t.database.sequelize.query(PASSKEY, { replacements: ['a', idOf(7, 8), EMAIL] });
    const stale = await beginReset(t.database, EMAIL, Date.now());
    const change = async (current: string, next: string, removePasskeys: boolean) =>
      await post('/api/account/password', { current, next, removePasskeys }, { cookie });
    const kept = await change(PASSWORD, 'four loud herons', false);
    assert.deepEqual(await kept.json(), { done: true, passkeys: 1 });
    const link = { token: stale!, password: 'five loud herons' };
    assert.equal(await codeOf(await post('/api/account/reset', link)), 'link/spent');
    assert.deepEqual([await many('access_sessions'), await many('access_known')], [1, 0]);
    const removed = await change('four loud herons', PASSWORD, true);
    assert.deepEqual(await removed.json(), { done: true, passkeys: 0 });
  });

  it('by a link does the same, and shows whose address it is', async () => {
    await signedIn();
    await t.database.sequelize.query(PASSKEY, { replacements: ['b', idOf(7, 9), EMAIL] });
    const token = await beginReset(t.database, EMAIL, Date.now());
    const body = { token: token!, password: PASSWORD, removePasskeys: true };
    assert.deepEqual(await (await post('/api/account/reset', body)).json(), {
      done: true,
      passkeys: 0,
    });
    for (const table of ['access_sessions', 'access_known', 'access_passkeys'])
      assert.equal(await many(table), 0, table);
  });

  it('lets no session begin with the one before, which was shown a moment ago', async () => {
    const accounts = new Accounts(t.database, t.enrolment);
    const account = await accounts.ownerOf(EMAIL, PASSWORD);
    assert.ok(account);
    const changed = { ...account, password: 'another hash' };
    assert.equal(await accounts.begin(changed, 'slow', Date.now()), null);
  });
});

describe('what cannot be undone', () => {
  it('wants a fresh proof: a device added or shut out, what it had not sent taken in or thrown away', async () => {
    const cookie = pairOf(await signedIn());
    const long = new Date(Date.now() - 11 * 60_000).toISOString();
    await t.database.sequelize.query('UPDATE access_sessions SET proved = ?', {
      replacements: [long],
    });
    const paths = ['/api/devices/code'];
    for (const what of ['shut-out', 'unsent']) paths.push(`/api/devices/${deviceId(1)}/${what}`);
    for (const path of paths)
      assert.equal(await codeOf(await post(path, {}, { cookie })), 'proof/needed', path);
    assert.equal(
      (await post('/api/account/proof', { password: PASSWORD }, { cookie })).status,
      200,
    );
    assert.equal((await post('/api/devices/code', {}, { cookie })).status, 200);
  });
});

describe('an address that nobody has shown to be theirs', () => {
  it('is shown by a link, once; another account’s does not help', async () => {
    const verified = async (email: string): Promise<boolean> =>
      (
        await select<{ verified: string | null }>(
          t.database,
          'SELECT verified FROM access_owners WHERE email = ?',
          [email],
        )
      )[0]!.verified !== null;
    const [row] = await select<{ owner: string }>(
      t.database,
      'SELECT owner FROM access_owners WHERE email = ?',
      ['first@stall.example'],
    );
    assert.equal(await verified('first@stall.example'), false);
    const token = await beginVerification(t.database, row!.owner, Date.now());
    const verify = async (with_: string) =>
      (await post('/api/account/verify', { token: with_ })).status;
    assert.equal(await verify('0'.repeat(64)), 409);
    assert.deepEqual([await verify(token), await verify(token)], [200, 409]);
    assert.deepEqual(
      [await verified('first@stall.example'), await verified('twice@stall.example')],
      [true, false],
    );
  });
});

describe('another site', () => {
  for (const origin of ['https://elsewhere.example', 'null', null]) {
    it(`with origin ${String(origin)} does nothing with an owner’s cookie`, async () => {
      const cookie = pairOf(await signedIn());
      for (const path of [
        '/api/devices/code',
        `/api/devices/${deviceId(1)}/shut-out`,
        '/api/account/sign-out',
        '/api/account/password',
      ]) {
        const response = await post(path, {}, { cookie, origin });
        assert.equal(response.status, 403, path);
        assert.match(String(await codeOf(response)), /^origin\//);
      }
      assert.equal(await get('/api/account', cookie), 200);
    });
  }
  it('does not reach a device’s routes or the open ones either', async () => {
    const origin = 'https://elsewhere.example';
    for (const path of ['/api/sync/push', '/api/enrol', '/api/account/sign-in']) {
      assert.equal((await post(path, {}, { bearer: token, origin })).status, 403, path);
    }
  });
  it('cannot frame, sniff or script our pages', async () => {
    const response = await fetch(`${app.origin}/sign-in`);
    const page = await response.text();
    for (const [name, value] of Object.entries(HEADERS)) {
      assert.equal(response.headers.get(name), value, name);
    }
    const policy = /http-equiv="content-security-policy" content="([^"]+)"/.exec(page)?.[1] ?? '';
    assert.match(policy, /script-src 'self'/);
    assert.ok(!/script-src[^;]*'unsafe/.test(policy), policy);
  });
});

describe('a password', () => {
  const signUp = (password: string) =>
    post('/api/account/sign-up', { ...newcomer('new@stall.example', 40), password });
  for (const [password, code] of [
    ['short', 'password/too-short'],
    ['password123', 'password/common'],
    ['1234567890', 'password/common'],
    ['aaaaaaaaaaaaaa', 'password/common'],
    ['Fernbank Jams', 'password/common'],
    ['new@stall.example', 'password/common'],
    ['x'.repeat(201), 'password/too-long'],
  ] as const) {
    it(`${password.slice(0, 20)} is refused: ${code}`, async () =>
      assert.equal(await codeOf(await signUp(password)), code));
  }
  it('of small letters only is fine when it is long and nobody’s', async () => {
    const [first, again] = [await signUp('moss under ladder'), await signUp('moss under ladder')];
    assert.deepEqual([first.status, again.status], [200, 200]);
    assert.deepEqual(await first.json(), await again.json());
  });
  it('is taken no more than eight times in a quarter of an hour, right or wrong', async () => {
    const guess = (password: string) =>
      post('/api/account/sign-in', { email: 'new@stall.example', password });
    const statuses: number[] = [];
    for (let n = 0; n < 10; n += 1) statuses.push((await guess(`guess ${String(n)}`)).status);
    assert.deepEqual(statuses, [...Array<number>(8).fill(401), 429, 429]);
    const right = await guess('moss under ladder');
    assert.equal(right.status, 429);
    assert.ok(Number(right.headers.get('retry-after')) > 0);
  });
  it('says the same of an address that nobody has', async () => {
    const said = await post('/api/account/sign-in', {
      email: 'nobody@stall.example',
      password: 'x',
    });
    assert.deepEqual([said.status, await codeOf(said)], [401, 'owner/wrong']);
  });
});

describe('a code', () => {
  it('from an owner enrols one more device of the owner’s business', async () => {
    const cookie = pairOf(await signedIn());
    const made = await post('/api/devices/code', {}, { cookie });
    const { code } = (await made.json()) as { code: string };
    const enrolled = await post('/api/enrol', {
      code,
      device: deviceId(49),
      token: 'b'.repeat(64),
    });
    const body = (await enrolled.json()) as { business: string; number: number };
    assert.deepEqual([enrolled.status, body.business, body.number], [200, BUSINESS, 3]);
  });
  it('enrols once, and a replay by another device does not', async () => {
    const code = await t.enrolment.makeCode(BUSINESS, Date.now(), 60_000);
    const first = { code, device: deviceId(50), token: 'd'.repeat(64) };
    assert.equal((await post('/api/enrol', first)).status, 200);
    const replay = { code, device: deviceId(51), token: 'e'.repeat(64) };
    assert.equal(await codeOf(await post('/api/enrol', replay)), 'code/used');
  });
  it('cannot be guessed: after twenty tries nothing is looked at, not even the right one', async () => {
    const real = await t.enrolment.makeCode(BUSINESS, Date.now(), 60_000);
    const body = { code: 'AAAAA-AAAAA', device: deviceId(60), token: 'f'.repeat(64) };
    let last = 0;
    for (let n = 0; n < 25; n += 1) last = (await post('/api/enrol', body)).status;
    assert.equal(last, 429);
    assert.equal((await post('/api/enrol', { ...body, code: real })).status, 429);
  });
});

describe('a forged device', () => {
  const writer = new DeviceWriter(1);
  const [entry] = writer.write({ does: 'load', item: 1, quantity: 1000 }, Date.now());
  const push = (entries: unknown, bearer = token) =>
    post('/api/sync/push', { entries }, { bearer });

  it('with an invented token is a stranger', async () => {
    assert.equal((await push([entry], '0'.repeat(64))).status, 401);
  });
  for (const [what, change, code] of [
    ['another device’s name', { device: deviceId(2) }, 'entry/other-device'],
    ['another business', { business: idOf(1, 2) }, 'entry/other-business'],
    ['a seq of its own making', { seq: 7 }, 'chain/gap'],
    ['a changed body', { body: { reason: 'lost' } }, 'chain/hash-wrong'],
    ['another writer', { by: idOf(7, 1) }, 'chain/hash-wrong'],
    ['a lender added afterwards', { lentBy: idOf(7, 1) }, 'chain/hash-wrong'],
  ] as const) {
    it(`with ${what} is refused: ${code}`, async () => {
      const said = await push([{ ...entry, ...change }]);
      const body = (await said.json()) as { have: number; refused: { code: string } };
      assert.deepEqual([said.status, body.have, body.refused.code], [409, 0, code]);
    });
  }
});

describe('any body at all', () => {
  const routes = [
    '/api/sync/push',
    '/api/account/sign-in',
    '/api/account/sign-up',
    '/api/account/password',
    '/api/devices/code',
    `/api/devices/${deviceId(1)}/unsent`,
    '/api/enrol',
    '/api/account/proof',
    '/api/account/passkeys',
    '/api/account/passkey/sign-in',
    '/api/account/verify',
  ] as const;
  /** Bodies that are nearly right are more telling than noise. */
  const field = fc.oneof(
    fc.constantFrom('', 'a', '<script>', '\u0000', '__proto__', EMAIL, BUSINESS, 'x'.repeat(5000)),
    fc.constantFrom<unknown>(null, true, -1, 1e308, 0.5, [], {}, [[[[]]]]),
    fc.string({ unit: 'binary', maxLength: 30 }),
  );
  const names = [
    'email',
    'password',
    'business',
    'owner',
    'device',
    'token',
    'code',
    'current',
    'next',
    'entries',
    'upTo',
    'take',
  ];
  const nearly = fc
    .dictionary(fc.constantFrom(...names), field)
    .map((body) => JSON.stringify(body));
  const entryLike = fc
    .dictionary(
      fc.constantFrom(
        'id',
        'business',
        'device',
        'seq',
        'at',
        'stamp',
        'kind',
        'v',
        'body',
        'hash',
        'prev',
        'by',
        'event',
        'digest',
        'private',
      ),
      field,
    )
    .map((entry) => JSON.stringify({ entries: [entry] }));
  const base64url = fc.stringMatching(/^[\w-]{0,60}$/);
  const passkeyLike = fc
    .record({
      id: base64url,
      rawId: base64url,
      type: fc.constant('public-key'),
      clientExtensionResults: fc.constant({}),
      response: fc.record(
        {
          clientDataJSON: base64url,
          authenticatorData: base64url,
          signature: base64url,
          attestationObject: base64url,
        },
        { requiredKeys: ['clientDataJSON'] },
      ),
    })
    .chain((passkey) => fc.constantFrom<unknown>(passkey, { name: 'Key', passkey }))
    .map((body) => JSON.stringify(body));
  const noise = fc.oneof(fc.json({ maxDepth: 5 }), fc.string({ unit: 'binary', maxLength: 200 }));

  it('of ten thousand is answered with a reason, never with a fault', async () => {
    const cookie = pairOf(await signedIn());
    const bodies = fc.sample(fc.oneof(nearly, entryLike, passkeyLike, noise), {
      numRuns: 10_000,
      seed: 20_261_125,
    });
    const faults: string[] = [];
    const one = async (body: string, at: number): Promise<void> => {
      const path = routes[at % routes.length]!;
      const response = await post(path, body, { cookie, bearer: token });
      const text = await response.text();
      const isPlain = !/node_modules|\bat .+:\d+:\d+|SELECT |Sequelize/.test(text);
      if (response.status >= 500 || !isPlain) faults.push(`${path} ${body} → ${text}`);
    };
    for (let at = 0; at < bodies.length; at += 25) {
      await Promise.all(bodies.slice(at, at + 25).map((body, i) => one(body, at + i)));
    }
    assert.deepEqual(faults.slice(0, 3), []);
  });

  it('that is too large is cut off', async () => {
    const large = `"${'x'.repeat(LARGEST_BODY + 10)}"`;
    for (const path of ['/api/sync/push', '/api/account/sign-in', '/api/enrol']) {
      const response = await post(path, large, { bearer: token }).catch(() => null);
      if (response !== null) assert.equal(response.status, 413, path);
    }
  });
});

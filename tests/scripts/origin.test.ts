/** Where links in letters lead: to the address that was set, never to the one that somebody asked by. */
import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { describe, it } from 'node:test';
import { originOf } from '../../scripts/setup/origin.mjs';

const from = { host: '127.0.0.1', port: 4180, isTls: false, origin: undefined };

describe('the address of our own pages', () => {
  it('is this machine by name where nobody else can reach it', () => {
    assert.equal(originOf(from), 'http://localhost:4180');
    assert.equal(originOf({ ...from, isTls: true, host: '::1' }), 'https://localhost:4180');
  });
  it('is what was set', () =>
    assert.equal(
      originOf({ ...from, host: '0.0.0.0', origin: 'https://till.example' }),
      'https://till.example',
    ));
  for (const host of ['0.0.0.0', '::', '192.0.2.7', 'till.example'])
    it(`must be set to serve at ${host}`, () =>
      assert.throws(() => originOf({ ...from, host }), /ORIGIN is not set/));
  it('is missing: the server does not start', () => {
    const env = { ...process.env, HOST: '0.0.0.0', PORT: '0', ORIGIN: '' };
    const ended = spawnSync('node', ['scripts/serve.mjs', 'build'], { env, encoding: 'utf8' });
    assert.equal(ended.status, 2);
    assert.match(ended.stderr, /ORIGIN is not set.*HOST is 0\.0\.0\.0/s);
  });
});

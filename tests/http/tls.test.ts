/** TLS by certificate files, for phones on the same network. */
import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import https from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, it } from 'node:test';
import { startApplication } from '../../scripts/setup/application.mjs';
import { ensureProgram } from '../../scripts/setup/packages.mjs';
import { freePort } from '../../scripts/setup/ports.mjs';
import { testDatabase, type TestDatabase } from '../support/test-database';

const folder = mkdtempSync(join(tmpdir(), 'stall-till-tls-'));
const [cert, key] = [join(folder, 'cert.pem'), join(folder, 'key.pem')];
let t: TestDatabase;
before(async () => {
  t = await testDatabase();
  const subject = ['-subj', '/CN=localhost', '-addext', 'subjectAltName=IP:127.0.0.1'];
  const made = ['req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '2', '-keyout', key];
  const openssl = await ensureProgram(['openssl'], 'openssl', 'OpenSSL');
  execFileSync(openssl, [...made, '-out', cert, ...subject], { stdio: 'ignore' });
});
after(async () => {
  await t.end();
  rmSync(folder, { recursive: true, force: true });
});

it('serves over TLS with the files that are named, and tells browsers to stay with it', async () => {
  process.env['TLS_CERT'] = cert;
  process.env['TLS_KEY'] = key;
  const app = await startApplication({ databaseUrl: t.url, port: await freePort(), quiet: true });
  try {
    assert.match(app.origin, /^https:/);
    const headers = await new Promise<Record<string, unknown>>((resolve, reject) => {
      https
        .get(`${app.origin}/sign-in`, { rejectUnauthorized: false }, (response) => {
          response.resume();
          resolve({ ...response.headers, status: response.statusCode });
        })
        .on('error', reject);
    });
    assert.equal(headers['status'], 200);
    assert.equal(headers['strict-transport-security'], 'max-age=31536000');
    assert.equal(headers['x-frame-options'], 'DENY');
  } finally {
    delete process.env['TLS_CERT'];
    delete process.env['TLS_KEY'];
    await app.stop();
  }
});

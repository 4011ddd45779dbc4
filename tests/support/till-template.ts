/**
 * A database folder with the demo in it, made once for a run of end-to-end tests: each test file gets a
 * copy, which is far quicker than to begin with nothing.
 */
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { prepare } from '../../scripts/setup/application.mjs';
import { startMariaDb } from '../../scripts/setup/mariadb.mjs';

/** Names the folder to the processes that run the tests. */
export const TEMPLATE = 'STALL_TILL_TEMPLATE';
const CODES = 8;

export type Codes = Readonly<Record<'larkmoss' | 'pinwheel', string[]>>;

/** Seeds a database in a folder. @returns Codes that enrol one browser each. */
async function seeded(url: string): Promise<Codes> {
  const codes: Codes = { larkmoss: [], pinwheel: [] };
  for (const way of await prepare(url, { demo: true, codes: CODES }))
    codes[way.business === 'Larkmoss Plants' ? 'larkmoss' : 'pinwheel'].push(...way.codes);
  return codes;
}

/** Before all tests, where none was made for them already. @returns What is to be done after them. */
export default async function makeTemplate(): Promise<() => void> {
  if (process.env[TEMPLATE] !== undefined) return () => undefined;
  const folder = mkdtempSync(join(tmpdir(), 'stall-till-template-'));
  const server = await startMariaDb(folder, { isForTests: true });
  const codes = await seeded(server.url);
  await server.stop();
  writeFileSync(join(folder, 'codes.json'), JSON.stringify(codes));
  process.env[TEMPLATE] = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}

/** A database server of its own on the demo's data: a copy, or seeded where there is none to copy. */
export async function startSeeded(folder: string) {
  const template = process.env[TEMPLATE];
  if (template === undefined) {
    const server = await startMariaDb(folder, { isForTests: true });
    const codes = await seeded(server.url).catch(async (error: unknown) => {
      await server.stop();
      throw error;
    });
    return { server, codes };
  }
  cpSync(template, folder, { recursive: true });
  const file = join(folder, 'codes.json');
  if (!existsSync(file)) throw new Error(`${template} has no codes`);
  const codes = JSON.parse(readFileSync(file, 'utf8')) as Codes;
  return { server: await startMariaDb(folder, { isForTests: true }), codes };
}

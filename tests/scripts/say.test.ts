/** What the scripts say: which step of how many, and all that a program printed once it has failed. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { run } from '../../scripts/setup/run.mjs';
import { Stop } from '../../scripts/setup/say.mjs';

const said = async (script: string): Promise<string> =>
  await run('node', ['--input-type=module', '-e', script], { quiet: true });
const SAY = "import { plan, step } from './scripts/setup/say.mjs';";

describe('a program that is run quietly', () => {
  it('gives what it printed, and shows none of it', async () => {
    assert.equal(await said('console.log("all is well")'), 'all is well\n');
  });

  it('fails with everything that it printed, on both of its outputs', async () => {
    await assert.rejects(
      said('console.log("reading lists"); console.error("no space left"); process.exit(100)'),
      (error: unknown) => {
        assert.ok(error instanceof Stop);
        assert.match(error.message, /ended with 100/);
        assert.match(error.message, /reading lists/);
        assert.match(error.message, /no space left/);
        return true;
      },
    );
  });
});

describe('steps', () => {
  it('say which of how many they are, and how long they took', async () => {
    const text = await said(
      `${SAY} plan(2); await step('Digging', () => 1); await step('Planting', () => 2);`,
    );
    assert.match(text, /^1\/2 Digging …\n {2}Digging: done in \d+\.\d s\n2\/2 Planting …\n/);
  });

  it('say so when they fail, and let the reason through', async () => {
    const text = await said(
      `${SAY} plan(1); await step('Digging', () => { throw new Error('a stone') }).catch((e) => console.log(e.message));`,
    );
    assert.match(text, /Digging: failed after \d+\.\d s\na stone\n$/);
  });
});

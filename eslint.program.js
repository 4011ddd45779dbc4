/**
 * One program for the type checker, with every component and what it uses in it, as the linter sees them.
 * Asked for one by one, each component would make the checker begin anew, which takes three times as long.
 */
import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import * as svelteParser from 'svelte-eslint-parser';
import typescript from 'typescript';
import ts from 'typescript-eslint';

/**
 * What is used of a parser.
 * @typedef {{ readonly filePath?: string, readonly projectService?: unknown }} Options
 * @typedef {(code: string, options: Options & { programs?: unknown[] }) => { ast: object }} Parse
 */
const parse = /** @type {{ parseForESLint: Parse }} */ (/** @type {unknown} */ (ts.parser))
  .parseForESLint;

const ROOT = dirname(fileURLToPath(import.meta.url));

/** What a component's script and template come to for the type checker. @param {string} file */
function virtualCode(file) {
  let seen = '';
  const remember = {
    /** @type {Parse} */
    parseForESLint(code, options) {
      seen = code;
      return parse(code, { ...options, projectService: false });
    },
  };
  svelteParser.parseForESLint(readFileSync(file, 'utf8'), { filePath: file, parser: remember });
  return seen;
}

/** @type {import('typescript').Program | null} */
let program = null;

function makeProgram() {
  const path = join(ROOT, 'tsconfig.json');
  const config = typescript.getParsedCommandLineOfConfigFile(
    path,
    undefined,
    {
      ...typescript.sys,
      onUnRecoverableConfigFileDiagnostic: (diagnostic) => {
        throw new Error(typescript.flattenDiagnosticMessageText(diagnostic.messageText, '\n'));
      },
    },
    undefined,
    undefined,
    [{ extension: '.svelte', isMixedContent: true, scriptKind: typescript.ScriptKind.Deferred }],
  );
  if (config === undefined) throw new Error(`${path} cannot be read`);
  const options = { ...config.options, allowNonTsExtensions: true };
  const host = typescript.createCompilerHost(options, true);
  const ofDisk = host.getSourceFile.bind(host);
  host.getSourceFile = (name, version, ...rest) =>
    /\.svelte(\.ts)?$/.test(name) && !name.includes('node_modules')
      ? typescript.createSourceFile(
          name,
          virtualCode(name),
          version,
          true,
          typescript.ScriptKind.TS,
        )
      : ofDisk(name, version, ...rest);
  const seen = config.fileNames.filter((name) => /\.svelte(\.ts)?$|\.d\.ts$/.test(name));
  return typescript.createProgram(seen, options, host);
}

/** The parser of TypeScript, with that program; a file that an editor has changed is asked for by itself. */
export const parser = {
  meta: { name: 'one-program' },
  /** @type {Parse} */
  parseForESLint(code, options) {
    if (options.projectService !== true) return parse(code, options);
    program ??= makeProgram();
    const known = program.getSourceFile(options.filePath ?? '');
    const own =
      known?.text === code
        ? { programs: [program], projectService: false }
        : { projectService: true };
    return parse(code, { ...options, ...own });
  },
};

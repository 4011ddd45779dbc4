/** Who may use whom; docs/architecture.md says why. */
const test = '\\.test\\.ts$|/testing/';

/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    {
      name: 'core-stands-alone',
      comment: 'The core imports itself and pure libraries, nothing of the world around it.',
      severity: 'error',
      from: { path: '^src/lib/core', pathNot: test },
      to: {
        path: '.',
        pathNot:
          '^src/lib/core/(?!testing)|node_modules/(zod|canonicalize|uuid|rrule|ical\\.js|@noble/hashes|card-validator|libphonenumber-js|fast-xml-parser|fast-xml-validator|mt940js|ofx-js)/',
      },
    },
    {
      name: 'device-knows-core-only',
      severity: 'error',
      from: { path: '^src/lib/device', pathNot: test },
      to: {
        path: '^(src|demo|standins|scripts|tests)',
        pathNot: '^src/lib/(device|paper|core/(?!testing))',
      },
    },
    {
      name: 'server-knows-core-only',
      severity: 'error',
      from: { path: '^src/lib/server', pathNot: test },
      to: {
        path: '^(src|demo|standins|scripts|tests)',
        pathNot: '^src/lib/(server|paper|core/(?!testing))',
      },
    },
    {
      name: 'paper-knows-core-only',
      comment: 'Documents are set on devices, and by the server for what it sends.',
      severity: 'error',
      from: { path: '^src/lib/paper', pathNot: test },
      to: {
        path: '^(src|demo|standins|scripts|tests)',
        pathNot: '^src/lib/(paper|core/(?!testing))',
      },
    },
    {
      name: 'ui-knows-no-database',
      severity: 'error',
      from: { path: '^src/lib/ui', pathNot: test },
      to: {
        path: '^(src|demo|standins|scripts|tests)|node_modules/dexie',
        pathNot: '^src/lib/(ui|core/(?!testing))',
      },
    },
    {
      name: 'screens-do-not-reach-the-server',
      comment: 'Only +server files and hooks may use the server’s half.',
      severity: 'error',
      from: { path: '^src/routes', pathNot: '\\+server\\.ts$|\\+page\\.server\\.ts$' },
      to: { path: '^src/lib/server' },
    },
    {
      name: 'stand-ins-stand-apart',
      severity: 'error',
      from: { path: '^standins' },
      to: { path: '^src' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.svelte-kit' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'node', 'svelte'],
    },
  },
};

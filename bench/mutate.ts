/**
 * `npm run mutate [-- SHARE [SEED]]`: mutation testing of inference, decision and learning by a tool from the registry (fetched for it, into
 * a copy of the tree, so that nothing here changes meanwhile). All mutants would take days on two cores; a share of the lines, each
 * drawn by the seed for itself, tells the score with its error, and what lived is printed with its line.
 */
import { execFileSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import ts from 'typescript';
import { seeded } from './worlds';

const TOOL = '9.6.1';
const [share = '0.1', seed = '1'] = process.argv.slice(2);
const root = resolve(__dirname, '..');
const core = 'packages/core/src';

const draw = seeded(Number(seed));
const mutate = ['inference', 'decision', 'learn'].flatMap((layer) =>
  readdirSync(join(root, core, layer))
    .filter((name) => name.endsWith('.ts') && !name.includes('.test.'))
    .flatMap((name) => {
      const path = `${core}/${layer}/${name}`;
      const lines = readFileSync(join(root, path), 'utf8').split('\n').length;
      return Array.from({ length: lines }, (_, i) => i + 1)
        .filter(() => draw() < Number(share))
        .map((line) => `${path}:${line}-${line}`);
    }),
);

const copy = mkdtempSync(join(tmpdir(), 'mutants-'));
for (const name of ['packages', 'demo', 'cases', 'docs', 'package.json', 'tsconfig.base.json', 'tsconfig.json'])
  cpSync(join(root, name), join(copy, name), { recursive: true });
// Links stay links: the packages of the tree lead to those of the copy.
cpSync(join(root, 'node_modules'), join(copy, 'node_modules'), { recursive: true, verbatimSymlinks: true });
writeFileSync(
  join(copy, 'jest.config.js'),
  `module.exports = { ...require(${JSON.stringify(join(root, 'jest.config.js'))}).projects[0], displayName: undefined, rootDir: __dirname, roots: ['<rootDir>/${core}'] };`,
);
writeFileSync(
  join(copy, 'stryker.config.json'),
  JSON.stringify({
    testRunner: 'jest',
    plugins: ['@stryker-mutator/jest-runner'],
    coverageAnalysis: 'perTest',
    concurrency: 1,
    ignoreStatic: true,
    mutate,
    ignorePatterns: ['tools'],
    jest: { projectType: 'custom', configFile: 'jest.config.js', enableFindRelatedTests: true },
    reporters: ['progress-append-only', 'json'],
    disableTypeChecks: false,
    timeoutMS: 60_000,
    dryRunTimeoutMinutes: 30,
  }),
);
console.log(`${mutate.length} lines, in ${copy}`);
// Installed beside the copy: what is borrowed from the tree would be looked for by the tool where it is not.
const tools = join(copy, 'tools');
mkdirSync(tools);
writeFileSync(join(tools, 'package.json'), '{ "private": true }');
const wanted = [`@stryker-mutator/core@${TOOL}`, `@stryker-mutator/jest-runner@${TOOL}`, `typescript@${ts.version}`];
execFileSync('npm', ['install', '--no-audit', '--no-fund', '--prefix', tools, ...wanted], {
  cwd: tools,
  stdio: 'inherit',
});
execFileSync(join(tools, 'node_modules/.bin/stryker'), ['run'], { cwd: copy, stdio: 'inherit' });
interface Mutant {
  readonly status: string;
  readonly location: { readonly start: { readonly line: number } };
  readonly replacement?: string;
}
interface Report {
  readonly files: Readonly<Record<string, { readonly source: string; readonly mutants: readonly Mutant[] }>>;
}
const report = JSON.parse(readFileSync(join(copy, 'reports/mutation/mutation.json'), 'utf8')) as Report;
const all = Object.values(report.files).flatMap(({ mutants }) => mutants.map(({ status }) => status));
for (const [file, { source, mutants }] of Object.entries(report.files))
  for (const { status, location, replacement = '' } of mutants.filter((one) => one.status === 'Survived')) {
    const { line } = location.start;
    console.log(`${status}: ${file}:${line}: ${(source.split('\n')[line - 1] ?? '').trim()} => ${replacement}`);
  }
const killed = all.filter((status) => status === 'Killed' || status === 'Timeout').length;
const judged = killed + all.filter((status) => status === 'Survived' || status === 'NoCoverage').length;
const score = killed / judged;
console.log(
  `${judged} mutants, ${killed} killed: ${(100 * score).toFixed(1)} ± ${(100 * Math.sqrt((score * (1 - score)) / judged)).toFixed(1)} % (aim 75)`,
);

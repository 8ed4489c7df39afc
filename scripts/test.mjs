// `npm test`: sets up what is missing, runs every check and every test, and ends with one line of counts.
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { checkNode, ensureChromium, ensurePackages, ensurePdftotext } from './lib/packages.mjs';
import { root, spawn } from './lib/run.mjs';
import { runMain } from './lib/sentence.mjs';

const scratch = join(root, '.test');
const bin = (name) => join(root, 'node_modules', '.bin', name);
let passed = 0;
let failed = 0;

/** Runs a command with its output on ours. Not blocking, so that the servers' output is drained meanwhile. */
function run(command, args, env = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    child.once('exit', (code) => resolve(code ?? 1));
  });
}

async function step(name, command, args) {
  console.log(`\n— ${name}`);
  const isFine = (await run(command, args)) === 0;
  if (isFine) passed += 1;
  else failed += 1;
  if (!isFine) console.log(`✗ ${name}`);
}

function readReport(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return undefined;
  }
}

/** Adds the counts of a runner; a runner that failed without counting a failure counts as one. */
function count(name, code, counts) {
  passed += counts?.passed ?? 0;
  failed += counts?.failed ?? 0;
  if (code !== 0 && (counts?.failed ?? 0) === 0) {
    failed += 1;
    console.log(`✗ ${name} ended with code ${code}`);
  }
}

async function unitAndServerTests(databaseUrl) {
  console.log('\n— unit and server tests');
  const file = join(scratch, 'vitest.json');
  const code = await run(
    bin('vitest'),
    ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${file}`],
    { BASTION_TEST_DATABASE: databaseUrl },
  );
  const report = readReport(file);
  count('vitest', code, report && { passed: report.numPassedTests, failed: report.numFailedTests });
}

async function journeys(databaseUrl) {
  console.log('\n— journeys');
  const { startJourneyServers } = await import('./lib/journeyServers.mjs');
  const servers = await startJourneyServers(databaseUrl);
  const file = join(scratch, 'journeys.json');
  const code = await run(bin('playwright'), ['test', '--config', 'journeys/playwright.config.ts'], {
    ...servers.env,
    BASTION_REPORT: file,
  });
  await servers.stop();
  const stats = readReport(file)?.stats;
  count('playwright', code, stats && { passed: stats.expected + stats.flaky, failed: stats.unexpected });
}

await runMain(async () => {
  checkNode();
  ensurePackages();
  ensureChromium();
  ensurePdftotext();
  rmSync(scratch, { recursive: true, force: true });
  mkdirSync(scratch, { recursive: true });
  ensureBuilt();
  const { startDatabase } = await import('./lib/database.mjs');

  await step('types', bin('tsc'), ['-b']);
  await step('lint', bin('eslint'), ['.']);
  await step('layout of the text', bin('prettier'), ['--check', '--log-level', 'warn', '.']);
  await step('dependency rule', bin('depcruise'), [
    'core/src',
    'server/src',
    'cli/src',
    'web/src',
    'site-sim/src',
    'scripts',
    'journeys',
    'trials',
    '--config',
    '.dependency-cruiser.cjs',
  ]);
  await step('nothing unused', bin('knip'), ['--no-progress']);
  await step('tables are fresh', process.execPath, ['scripts/generate-tables.mjs', '--check']);
  await step('document schema is fresh', process.execPath, ['scripts/generate-schema.mjs', '--check']);
  await step('first screen is small enough', process.execPath, ['scripts/first-screen.mjs']);

  const database = await startDatabase(join(scratch, 'data'));
  try {
    await unitAndServerTests(database.url);
    await journeys(database.url);
  } finally {
    await database.stop();
  }
  console.log(`\n${passed} passed, ${failed} failed`);
  process.exitCode = failed === 0 ? 0 : 1;
});

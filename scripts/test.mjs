// `npm test`: sets up what is missing, runs every check and every test, and ends with one line of counts.
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { checkNode, ensureHeadlessChromium, ensurePackages, ensurePdftotext } from './lib/packages.mjs';
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

/** Runs a command and holds its output back until it has ended: what runs beside it says its own. */
function runQuietly(command, args) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => (said += chunk));
    child.once('close', (code) => resolve({ code: code ?? 1, said }));
  });
}

async function step({ name, command, args }) {
  const { code, said } = await runQuietly(command, args);
  console.log(`\n— ${name}\n${said}`);
  if (code === 0) passed += 1;
  else failed += 1;
  if (code !== 0) console.log(`✗ ${name}`);
}

/** Rules that look at the text alone, as many at once as there are cores. */
async function rules() {
  const script = (name, file, ...args) => ({ name, command: process.execPath, args: [file, ...args] });
  const waiting = [
    { name: 'lint', command: bin('eslint'), args: ['.'] },
    { name: 'types', command: bin('tsc'), args: ['-b'] },
    {
      name: 'layout of the text',
      command: bin('prettier'),
      args: ['--check', '--log-level', 'warn', '.'],
    },
    {
      name: 'dependency rule',
      command: bin('depcruise'),
      args: [
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
      ],
    },
    { name: 'nothing unused', command: bin('knip'), args: ['--no-progress'] },
    script('tables are fresh', 'scripts/generate-tables.mjs', '--check'),
    script('document schema is fresh', 'scripts/generate-schema.mjs', '--check'),
    script('first screen is small enough', 'scripts/first-screen.mjs'),
  ];
  const worker = async () => {
    for (let next = waiting.shift(); next !== undefined; next = waiting.shift()) await step(next);
  };
  await Promise.all([worker(), worker()]);
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

async function journeys(databaseUrl, browser) {
  console.log('\n— journeys');
  const { startJourneyServers } = await import('./lib/journeyServers.mjs');
  const servers = await startJourneyServers(databaseUrl);
  const file = join(scratch, 'journeys.json');
  const code = await run(bin('playwright'), ['test', '--config', 'journeys/playwright.config.ts'], {
    ...servers.env,
    BASTION_BROWSER: browser,
    BASTION_REPORT: file,
  });
  await servers.stop();
  const stats = readReport(file)?.stats;
  count('playwright', code, stats && { passed: stats.expected + stats.flaky, failed: stats.unexpected });
}

await runMain(async () => {
  checkNode();
  ensurePackages();
  const browser = ensureHeadlessChromium();
  ensurePdftotext();
  rmSync(scratch, { recursive: true, force: true });
  mkdirSync(scratch, { recursive: true });
  ensureBuilt();
  const { startDatabase } = await import('./lib/database.mjs');

  await rules();

  const database = await startDatabase(join(scratch, 'data'));
  try {
    await unitAndServerTests(database.url);
    await journeys(database.url, browser);
  } finally {
    await database.stop();
  }
  console.log(`\n${passed} passed, ${failed} failed`);
  process.exitCode = failed === 0 ? 0 : 1;
});

// What every npm command starts with: it installs and builds what is missing, then runs the thing itself.
// Plain JavaScript on Node alone, because on a fresh clone nothing else is there yet.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, rmSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { reportOf } from './reports.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
process.chdir(root);
const [command = '', ...rest] = process.argv.slice(2);

const commands = {
  demo: () => serve('demo/src/main.ts', rest),
  start: () => serve('server/src/main.ts', []),
  dev,
  test: () => test(['unit', 'server', 'fuzz', 'e2e']),
  'test:unit': () => suites(['unit']),
  'test:server': () => suites(['server']),
  'test:e2e': () => suites(['e2e']),
  shots: () => browserScript('e2e/src/shots.ts'),
  bench: () => {
    install();
    chromium();
    buildWeb();
    node('bench/src/main.ts', rest);
  },
  fuzz: () => {
    install();
    node('fuzz/src/main.ts', rest);
  },
  mutants,
  replay,
  verify: () => tool('verify.ts'),
  backup: () => tool('backup.ts'),
  restore: () => tool('restore.ts'),
  licences: () => tool('licences.ts'),
  texts: () => tool('texts.ts'),
};
const chosen = commands[command];
if (!chosen) {
  console.error(`Unknown command “${command}”. Known: ${Object.keys(commands).join(', ')}.`);
  process.exit(2);
}
await chosen();

/**
 * Installs the locked packages when they are missing, were installed for another lock, or sqlite3 is not compiled.
 * @param toWork also what only working on the code needs, whatever NODE_ENV says
 */
function install(toWork = true) {
  const installed = 'node_modules/.package-lock.json';
  const fresh = existsSync(installed) && statSync(installed).mtimeMs >= statSync('package-lock.json').mtimeMs;
  const whole = !toWork || existsSync('node_modules/vitest');
  if (fresh && whole && existsSync('node_modules/sqlite3/build/Release/node_sqlite3.node')) return;
  console.log('Installing packages; compiling SQLite takes a few minutes the first time…');
  // Not `npm ci`: it refuses a lock file made where the packages of other platforms were not to be had.
  const include = toWork ? ['--include=dev'] : [];
  must('npm', ['install', '--no-audit', '--no-fund', ...include], { ...process.env, JOBS: 'max' });
}

/** Builds the web application when a source is newer than the build. */
function buildWeb() {
  const built = 'web/dist/index.html';
  const sources = [
    'web/src',
    'web/public',
    'web/index.html',
    'web/vite.config.ts',
    'contract/src',
    'core/src',
    'package-lock.json',
  ];
  if (existsSync(built) && Math.max(...sources.map(newest)) < statSync(built).mtimeMs) return;
  console.log('Building the web application…');
  must('node', ['node_modules/vite/bin/vite.js', 'build', 'web', '--logLevel', 'warn']);
}

function newest(path) {
  const own = statSync(path);
  if (!own.isDirectory()) return own.mtimeMs;
  return Math.max(own.mtimeMs, ...readdirSync(path).map((name) => newest(join(path, name))));
}

/** Debian's Chromium, for the browser tests: installed where apt and root allow it. */
function chromium() {
  if (existsSync('/usr/bin/chromium')) return;
  const isRoot = process.getuid?.() === 0;
  if (!isRoot || spawnSync('apt-get', ['--version']).status !== 0) {
    console.error('The browser tests need /usr/bin/chromium. Install it with: sudo apt-get install chromium');
    process.exit(1);
  }
  console.log('Installing Chromium for the browser tests…');
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  must('apt-get', ['update', '-qq'], env);
  must('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], env);
}

function serve(script, args) {
  install(false);
  buildWeb();
  return forward('node', ['--import', 'tsx', script, ...args]);
}

function dev() {
  install();
  forward('node', ['--import', 'tsx', '--watch', 'demo/src/main.ts']);
  return forward('node', ['node_modules/vite/bin/vite.js', 'web']);
}

function test(names) {
  install();
  step('Types', 'node', ['node_modules/typescript/bin/tsc', '-p', '.']);
  step('Lint', 'node', ['node_modules/@biomejs/biome/bin/biome', 'ci', '.']);
  suites(names);
}

/** Runs test suites one after the other and closes with their sum on a line of its own. */
function suites(names) {
  install();
  if (names.includes('e2e')) {
    chromium();
    buildWeb();
  }
  let [passed, failed, broken] = [0, 0, false];
  const faults = [];
  const slowest = [];
  mkdirSync('test-results', { recursive: true });
  // The suites that work on the demo business share one, made by the first of them.
  const demo = join(process.cwd(), 'test-results', 'demo.sqlite');
  rmSync(demo, { force: true });
  for (const name of names) {
    const report = `test-results/${name}.json`;
    rmSync(report, { force: true });
    const run = spawnSync('node', [...runnerOf(name, report), ...rest], {
      stdio: 'inherit',
      env: { ...process.env, YOSEGI_DEMO: demo },
    });
    broken ||= run.status !== 0;
    const sums = reportOf(report);
    passed += sums.passed;
    failed += sums.failed;
    faults.push(...sums.faults);
    slowest.push(...sums.times);
  }
  if (broken && failed === 0) failed = 1;
  slowest.sort((one, other) => other.seconds - one.seconds);
  for (const { seconds, name } of slowest.slice(0, 3)) console.log(`${seconds.toFixed(0).padStart(4)} s  ${name}`);
  // Said again at the end, where one looks first: the suites between here and there print a lot.
  for (const fault of faults) console.log(`\nFailed: ${fault}`);
  console.log(`${passed} passed, ${failed} failed`);
  process.exitCode = broken ? 1 : 0;
}

/** What runs a suite: Playwright the journeys in a browser, Vitest all others. */
function runnerOf(name, report) {
  if (name === 'e2e') return ['node_modules/@playwright/test/cli.js', 'test', '--config', 'e2e/playwright.config.ts'];
  const reporters = ['--reporter=default', '--reporter=json', `--outputFile.json=${report}`];
  return ['node_modules/vitest/vitest.mjs', 'run', '--project', name, ...reporters];
}

/** Runs a test file again with the seed that a failed property has printed: all of it, since one random day builds on another. */
function replay() {
  install();
  const [file = '', seed = ''] = rest;
  must('node', ['node_modules/vitest/vitest.mjs', 'run', file], { ...process.env, REPLAY_SEED: seed });
}

/** Makes small changes in the code, one at a time, and tells which of them no test notices. */
function mutants() {
  install();
  node('scripts/mutants.ts', rest);
}

function browserScript(script) {
  install();
  chromium();
  buildWeb();
  node(script, rest);
}

function tool(script) {
  install(false);
  node(`scripts/${script}`, rest);
}

function node(script, args) {
  const run = spawnSync('node', ['--import', 'tsx', script, ...args], { stdio: 'inherit' });
  process.exitCode = run.status ?? 1;
}

function step(name, program, args) {
  console.log(`${name}…`);
  const run = spawnSync(program, args, { stdio: 'inherit' });
  if (run.status === 0) return;
  console.log('0 passed, 1 failed');
  process.exit(1);
}

function must(program, args, env = process.env) {
  const run = spawnSync(program, args, { stdio: 'inherit', env });
  if (run.status !== 0) process.exit(run.status ?? 1);
}

/** Runs a long-lived program and hands the signals on, so that it can stop cleanly. */
function forward(program, args) {
  const child = spawn(program, args, { stdio: 'inherit' });
  for (const signal of ['SIGTERM', 'SIGINT']) process.on(signal, () => child.kill(signal));
  // npm puts a shell between itself and us, and that shell dies of a signal without handing it on.
  const parent = process.ppid;
  const watch = setInterval(() => process.ppid !== parent && child.kill('SIGTERM'), 300);
  if (!process.env.npm_lifecycle_event) clearInterval(watch);
  child.on('exit', () => clearInterval(watch));
  return new Promise((resolve) => {
    child.on('exit', (code) => {
      process.exitCode = code ?? 0;
      resolve();
    });
  });
}

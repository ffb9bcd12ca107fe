// npm test: installs what is missing, then lint, type check, Jest and Playwright; ends with "N passed, N failed".
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, fail, install, run, runBeside, say } from './setup.mjs';

install();
ensureChromium();
const results = mkdtempSync(join(tmpdir(), 'sieve-results-'));
const counts = { passed: 0, failed: 0 };

function check(name, passed) {
  say(`${passed ? 'ok    ' : 'FAILED'} ${name}`);
  counts[passed ? 'passed' : 'failed']++;
}

const [eslint, prettier, types] = await Promise.all([
  runBeside('npx', ['eslint', '.']),
  runBeside('npx', ['prettier', '--check', '--log-level', 'warn', '.']),
  runBeside('node', ['scripts/typecheck.mjs']),
]);
check('lint', eslint === 0 && prettier === 0);
check('type check', types === 0);

const jest = join(results, 'jest.json');
const jestStatus = run('npx', ['jest', '--json', `--outputFile=${jest}`]);
const unit = existsSync(jest) ? JSON.parse(readFileSync(jest, 'utf8')) : { numPassedTests: 0, numFailedTests: 0 };
counts.passed += unit.numPassedTests;
counts.failed += unit.numFailedTests + (jestStatus !== 0 && unit.numFailedTests === 0 ? 1 : 0);

build();
const browser = join(results, 'playwright.json');
const browserStatus = run(
  'npx',
  ['playwright', 'test', '--config', 'e2e/playwright.config.ts', '--reporter=list,json'],
  { env: { PLAYWRIGHT_JSON_OUTPUT_NAME: browser } },
);
const {
  expected = 0,
  unexpected = 0,
  flaky = 0,
} = existsSync(browser) ? JSON.parse(readFileSync(browser, 'utf8')).stats : {};
counts.passed += expected + flaky;
if (flaky > 0) say(`${flaky} browser ${flaky === 1 ? 'test' : 'tests'} passed only when run again.`);
counts.failed += unexpected + (browserStatus !== 0 && unexpected === 0 ? 1 : 0);

say(`${counts.passed} passed, ${counts.failed} failed`);
process.exit(counts.failed === 0 ? 0 : 1);

/** Debian's Chromium: installed where this may be done, told how where not. */
function ensureChromium() {
  if (existsSync(process.env.CHROMIUM_PATH ?? '/usr/bin/chromium')) return;
  const mayInstall = process.getuid?.() === 0 && spawnSync('apt-get', ['--version'], { stdio: 'ignore' }).status === 0;
  const how = 'apt-get install chromium fonts-liberation';
  if (!mayInstall)
    fail(`Chromium is missing. Install it (Debian, as root: ${how}) or name it in CHROMIUM_PATH, and start again.`);
  say('Installing Chromium.');
  run('apt-get', ['update'], { quiet: true });
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  if (
    run('apt-get', ['install', '-y', '--no-install-recommends', 'chromium', 'fonts-liberation'], {
      quiet: true,
      env,
    }) !== 0
  )
    fail(`Chromium could not be installed. Try: ${how}`);
}

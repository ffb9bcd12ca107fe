// First paint and bytes sent of the built web application, over loopback, in a fresh browser.
// npm run bench -- web
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { startAll } from '../scripts/setup.mjs';

const ROUNDS = 5;
const dataDir = mkdtempSync(join(tmpdir(), 'sieve-bench-'));
const { url, stop } = await startAll({ port: 4610, dataDir });
const job = await fetch(`${url}/api/jobs`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ name: 'Bench' }),
}).then((response) => response.json());
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-dev-shm-usage'],
});
console.log(`page             first paint  settled   JavaScript  all sent   (median of ${ROUNDS}; kB as sent)`);
for (const path of ['/desk', `/jobs/${job.id}`, `/jobs/${job.id}/bring`, `/jobs/${job.id}/export`]) {
  const rounds = [];
  for (let i = 0; i < ROUNDS; i++) rounds.push(await visit(path));
  const median = (key) => rounds.map((round) => round[key]).sort((a, b) => a - b)[Math.floor(ROUNDS / 2)];
  const ms = (key) => `${median(key).toFixed(0)} ms`.padStart(9);
  const kb = (key) => `${(median(key) / 1000).toFixed(0)} kB`.padStart(9);
  console.log(`${path.padEnd(16)} ${ms('paint')}    ${ms('settled')}  ${kb('script')}  ${kb('all')}`);
}
await browser.close();
stop();
rmSync(dataDir, { recursive: true, force: true });

async function visit(path) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const wire = await context.newCDPSession(page);
  await wire.send('Network.enable');
  const types = new Map();
  const sent = { script: 0, all: 0 };
  wire.on('Network.responseReceived', ({ requestId, type }) => types.set(requestId, type));
  wire.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    sent.all += encodedDataLength;
    if (types.get(requestId) === 'Script') sent.script += encodedDataLength;
  });
  await page.goto(url + path, { waitUntil: 'load' });
  await page.locator('h1, h2').first().waitFor();
  const settled = await page.evaluate(() => performance.now());
  const paint = await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? 0);
  await page.waitForTimeout(700);
  await context.close();
  return { paint, settled, ...sent };
}

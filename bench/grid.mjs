// How smoothly the grid scrolls over many rows, in a fresh browser: npm run bench -- grid [ROWS]
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { startAll } from '../scripts/setup.mjs';
import { writeMessyFile } from '../dist/bench/messy-file.js';
import { clientOf } from './client.mjs';

const rows = Number(process.argv[2] ?? 100_000);
const FRAMES = 240;
const dataDir = mkdtempSync(join(tmpdir(), 'sieve-bench-'));
const file = join(dataDir, 'list.csv');
await writeMessyFile(file, rows);
const { url, stop } = await startAll({ port: 4620, dataDir });
const { ask, upload, inspect, bringIn } = clientOf(url);

try {
  const job = await ask('POST', '/api/jobs', { name: 'Bench' });
  const from = performance.now();
  const uploaded = await upload(file);
  await bringIn(job.id, uploaded, await inspect(uploaded, job.id));
  let slowest = 0;
  for (let busy = true; busy;) {
    const asked = performance.now();
    const runs = await ask('GET', '/api/runs');
    slowest = Math.max(slowest, performance.now() - asked);
    busy = runs.some(({ state }) => ['queued', 'running'].includes(state));
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  const seconds = ((performance.now() - from) / 1000).toFixed(1);
  console.log(`${rows} rows up, in and sifted in ${seconds} s; slowest answer meanwhile ${slowest.toFixed(0)} ms`);

  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-dev-shm-usage'],
  });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const wire = await page.context().newCDPSession(page);
  await wire.send('Performance.enable');
  await page.goto(`${url}/jobs/${job.id}`);
  await page.locator('.ag-row').nth(10).waitFor();
  console.log('pixels a frame   frame ms: median    p95    worst   of it script, style and layout: mean');
  for (const step of [0, 31, 140, 1000]) {
    const before = await metrics(wire);
    const frames = await page.evaluate(scroll, { step, count: FRAMES });
    const after = await metrics(wire);
    const at = (share) => frames[Math.floor((frames.length - 1) * share)].toFixed(0).padStart(6);
    const own = ((after - before) * 1000) / FRAMES;
    console.log(
      `${String(step).padStart(14)}             ${at(0.5)} ${at(0.95)}   ${at(1)}   ${own.toFixed(1).padStart(10)}`,
    );
  }
  await browser.close();
} finally {
  stop();
  rmSync(dataDir, { recursive: true, force: true });
}

async function metrics(wire) {
  const { metrics: all } = await wire.send('Performance.getMetrics');
  const of = (name) => all.find((metric) => metric.name === name).value;
  return of('ScriptDuration') + of('LayoutDuration') + of('RecalcStyleDuration');
}

/* global document, requestAnimationFrame */

/** Scrolls the grid a step a frame; the milliseconds of each frame, shortest first. */
async function scroll({ step, count }) {
  const [view] = [...document.querySelectorAll('cs-rows-grid *')]
    .filter(({ clientHeight, clientWidth }) => clientHeight > 200 && clientWidth > 0)
    .sort((a, b) => b.scrollHeight - b.clientHeight - (a.scrollHeight - a.clientHeight));
  const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
  view.scrollTop = 0;
  await frame();
  const took = [];
  let last = await frame();
  for (let i = 0; i < count; i++) {
    view.scrollTop += step;
    const now = await frame();
    took.push(now - last);
    last = now;
  }
  return took.sort((a, b) => a - b);
}

// How long the server's main thread is blocked, at most, while a large list comes in and while it is worked with:
// npm run bench -- stalls [ROWS]
import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeMessyFile } from '../dist/bench/messy-file.js';
import { clientOf } from './client.mjs';

const rows = Number(process.argv[2] ?? 1_000_000);
const PORT = 4630;
const url = `http://127.0.0.1:${PORT}`;
const root = new URL('..', import.meta.url);
const dataDir = mkdtempSync(join(tmpdir(), 'sieve-stalls-'));
const file = join(dataDir, 'list.csv');
await writeMessyFile(file, rows);

const server = spawn(
  'node',
  ['--import', new URL('bench/loop-watch.mjs', root).href, new URL('dist/server/main.js', root).pathname],
  {
    env: { ...process.env, PORT: String(PORT), DATA_DIR: join(dataDir, 'data'), LOG_LEVEL: 'error' },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  },
);
const longest = () =>
  new Promise((resolve) => {
    server.once('message', ({ longestMs }) => resolve(longestMs));
    server.send('read');
  });
const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const { ask, upload, inspect, bringIn, idle } = clientOf(url);
async function measured(what, work) {
  await longest();
  // What is measured begins at the first tick after it was set back.
  await pause(20);
  const from = performance.now();
  const answer = await work();
  const ms = performance.now() - from;
  await pause(20);
  console.log(`${what.padEnd(58)} ${ms.toFixed(0).padStart(8)} ms  ${(await longest()).toFixed(0).padStart(6)} ms`);
  return answer;
}

try {
  while (!(await fetch(`${url}/api/jobs`).catch(() => null))?.ok) await pause(100);
  console.log(`${rows} rows${' '.repeat(50)} takes   main thread blocked at most`);
  const job = await ask('POST', '/api/jobs', { name: 'Bench' });
  const of = `/api/jobs/${job.id}`;
  const uploaded = await measured('the file comes up', () => upload(file));
  const found = await measured('it is looked at', () => inspect(uploaded, job.id));
  await measured('it is brought in and sifted', async () => {
    await bringIn(job.id, uploaded, found);
    await idle();
  });
  for (const id of ['append-email', 'verify']) {
    const was = (await ask('GET', of)).sieve.find((known) => known.id === id);
    await ask('POST', `${of}/steps`, { step: { ...was, on: false }, was });
  }
  await measured('asking switched off, all sifted again', idle);
  const { sieve } = await ask('GET', of);
  const page = (more) => ask('GET', `${of}/rows?step=screen&fate=pass&limit=100&${more}`);
  const first = await measured('the first page of rows', () => page('offset=0'));
  await measured('a page far down', () => page(`offset=${Math.floor(first.total * 0.9)}`));
  await measured('a page far down by company, descending', () =>
    page(`offset=${Math.floor(first.total * 0.8)}&sort=company&desc=true`),
  );
  await measured('rows filtered by a word', () => page('offset=0&q=tolsor'));
  await measured('rows filtered by two words, by title', () => page('offset=0&q=quality%20wells&sort=title'));
  for (const by of ['title', 'company'])
    await measured(`grouped by ${by}`, () => ask('GET', `${of}/groups?step=screen&by=${by}`));
  await measured('rows of one reason', () => ask('GET', `${of}/rows?step=screen&fate=aside&why=rule-0`));
  await measured('what a rule would take', () =>
    ask('POST', `${of}/screen/effect`, {
      rules: [{ conditions: [{ field: 'title', values: ['manag*'] }], fate: 'aside' }],
    }),
  );
  await measured('how much of each source fits', () => ask('GET', `${of}/hit-rates`));
  await measured('pairs to judge', () => ask('GET', `${of}/pairs`));
  await measured('somebody is found by name', () => ask('GET', '/api/found?q=maren%20brac'));
  await measured('a contact with its records', () => ask('GET', `${of}/contacts/${first.rows[50].id}`));
  await measured('a person in full', () => ask('GET', `${of}/people/${first.rows[50].id}`));
  await measured('what asking would cost', () => ask('GET', `${of}/estimate`));
  await measured('sources of the job', () => ask('GET', `${of}/sources`));
  await measured('jobs, runs, decisions', () =>
    Promise.all([
      ask('GET', '/api/jobs'),
      ask('GET', '/api/runs'),
      ask('GET', `/api/decisions?subject=job&subjectId=${job.id}`),
    ]),
  );
  const layout = {
    columns: [
      { field: 'fullName', heading: 'Name' },
      { field: 'company', heading: 'Company' },
    ],
    verdicts: ['valid', 'risky', 'unknown', 'none'],
  };
  await measured('what an export would be', () => ask('POST', `${of}/exports/preview`, layout));
  await measured('exported', async () => {
    await ask('POST', `${of}/exports`, layout);
    await idle();
  });
  await measured('100 rows set aside, and the grid paged while it is sifted', async () => {
    await ask('POST', `${of}/decisions`, {
      body: { kind: 'set-aside', recordIds: first.rows.map(({ id }) => id) },
    });
    for (let i = 0; i < 20; i++) {
      await page(`offset=${i * 1000}`);
      await pause(100);
    }
    await idle();
  });
  const was = sieve.find(({ id }) => id === 'screen');
  await measured('a rule changed, all sifted again', async () => {
    const rules = [{ conditions: [{ field: 'title', values: ['driver'] }], fate: 'aside' }];
    await ask('POST', `${of}/steps`, { step: { ...was, options: { ...was.options, rules } }, was });
    await idle();
  });
} finally {
  server.kill();
  rmSync(dataDir, { recursive: true, force: true });
}

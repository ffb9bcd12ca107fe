import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from '@playwright/test';
import Papa from 'papaparse';
import { demoFile } from './world';

const sift = fileURLToPath(new URL('../dist/server/cli/sift.js', import.meta.url));
const dir = mkdtempSync(join(tmpdir(), 'sieve-cli-'));
test.afterAll(() => rmSync(dir, { recursive: true, force: true }));

const run = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, [sift, ...args], { encoding: 'utf8' });
  return { status, stdout, stderr };
};
const jobFile = (job: object) => {
  const file = join(dir, 'job.json');
  writeFileSync(file, JSON.stringify(job));
  return file;
};

test('files in, batches out, counts as JSON', () => {
  const out = join(dir, 'out');
  const job = jobFile({
    name: 'Guild and show',
    columns: { Visited: 'own' },
    suppress: ['bridgecross.example'],
    steps: [
      {
        kind: 'screen',
        options: { rules: [{ conditions: [{ field: 'title', values: ['driver', 'intern'] }], fate: 'aside' }] },
      },
    ],
    export: {
      columns: [
        { field: 'fullName', heading: 'Name' },
        { field: 'own:Visited', heading: 'Visited' },
      ],
      verdicts: ['none', 'valid', 'risky', 'unknown'],
      rowsEach: 500,
    },
  });
  const { status, stdout } = run(
    '--in',
    demoFile('guild-members.txt'),
    '--in',
    demoFile('show-list-2026.csv'),
    '--job',
    job,
    '--out',
    out,
  );
  expect(status).toBe(0);
  const said = JSON.parse(stdout) as { read: { rows: number }[]; records: number; merged: number; steps: object };
  expect(said.read.map(({ rows }) => rows)).toEqual([640, 1121]);
  expect(said).toMatchObject({ records: 1761 });
  expect(said.merged).toBeGreaterThan(50);
  const files = readdirSync(out).filter((name) => name.endsWith('.csv'));
  expect(files.length).toBeGreaterThan(1);
  const rows = files.flatMap((name) =>
    Papa.parse<string[]>(readFileSync(join(out, name), 'utf8').slice(1).trim()).data.slice(1),
  );
  expect(rows.some(([, visited]) => /03\/2026$/.test(visited!))).toBe(true);
  expect(rows.every(([name]) => name && !/[★🧀]/u.test(name))).toBe(true);
  expect(existsSync(join(out, 'manifest.json'))).toBe(true);
});

test('what is wrong with the call or with a file is said, with a code of its own', () => {
  expect(run().status).toBe(2);
  expect(run('--in', join(dir, 'none.csv'), '--job', jobFile({ name: 'x' }), '--out', dir)).toMatchObject({
    status: 2,
    stderr: expect.stringContaining('There is no file'),
  });
  const wrong = run('--in', demoFile('guild-members.txt'), '--job', jobFile({ name: 'x', colums: {} }), '--out', dir);
  expect(wrong).toMatchObject({ status: 2, stderr: expect.stringContaining('colums') });
  const empty = join(dir, 'empty.csv');
  writeFileSync(empty, '');
  const out = join(dir, 'nothing');
  const failed = run('--in', empty, '--job', jobFile({ name: 'x' }), '--out', out);
  expect(failed).toMatchObject({ status: 1, stderr: expect.stringContaining('is empty') });
  expect(existsSync(out)).toBe(false);
});

test('a list that is only to be verified comes back as it came, with verdicts; a column that is not there is said', () => {
  const list = join(dir, 'members.csv');
  writeFileSync(list, 'No,Mail\n1,not an address\n2,\n3,also none@\n');
  const out = join(dir, 'verified');
  const wrong = run('--verify', list, '--column', 'E-mail', '--out', out);
  expect([wrong.status, wrong.stderr]).toEqual([2, 'members.csv has no column E-mail; it has No, Mail.\n']);
  const { status, stdout } = run('--verify', list, '--column', 'Mail', '--out', out);
  expect(status).toBe(0);
  expect(JSON.parse(stdout)).toMatchObject({ read: [{ rows: 3 }], written: 'members with verdicts.csv' });
  expect(readFileSync(join(out, 'members with verdicts.csv'), 'utf8').split('\r\n').slice(1, 4)).toEqual([
    '1,not an address,,invalid,not an address',
    '2,,,none,',
    '3,also none@,,invalid,not an address',
  ]);
});

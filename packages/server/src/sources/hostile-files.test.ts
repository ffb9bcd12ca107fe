import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NO_LISTS } from '@sieve/core';
import { ERRORS } from '@sieve/contract';
import { AppError } from '../errors';
import { testDb } from '../testing/fixtures';
import { hostileFile } from '../testing/hostile-files';
import { inspectFile } from './inspect';

jest.setTimeout(120_000);
const FILES = 900;
const { db } = testDb();
const dir = mkdtempSync(join(tmpdir(), 'hostile-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

test('of 900 hostile files each is read or refused in words; where its rows are known, every one is accounted for', async () => {
  const file = join(dir, 'file');
  const ended = { whole: 0, read: 0, refused: 0 };
  for (let seed = 1; seed <= FILES; seed++) {
    const { bytes, said, rows, how } = hostileFile(seed);
    writeFileSync(file, bytes);
    const found = await inspectFile(db, { file, name: 'file.csv', said, mapped: null, jobId: null }, NO_LISTS).catch(
      (error: unknown) => error,
    );
    if (found instanceof AppError) {
      // Words of its own, never those of a fault in the program.
      expect([seed, how, ERRORS[found.code][0]]).toEqual([seed, how, expect.any(Number)]);
      expect(ERRORS[found.code][0]).toBeLessThan(500);
      expect(rows).toBeNull();
      ended.refused++;
      continue;
    }
    if (found instanceof Error) throw new Error(`seed ${seed}, ${how}`, { cause: found });
    const inspected = found as Awaited<ReturnType<typeof inspectFile>>;
    for (const issue of inspected.issues) expect(issue.line).toBeGreaterThan(0);
    if (rows === null) ended.read++;
    else {
      expect([seed, how, inspected.rows + inspected.unread]).toEqual([seed, how, rows]);
      ended.whole++;
    }
  }
  expect(ended.whole).toBe(FILES / 3);
  expect(ended.read).toBeGreaterThan(200);
  expect(ended.refused).toBeGreaterThan(50);
});

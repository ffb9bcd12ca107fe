import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ERRORS, errorWords } from '@sieve/contract';
import { AppError, toAppError } from './errors';

test('docs/errors.md lists every code with its status', () => {
  const text = readFileSync(join(__dirname, '../../../docs/errors.md'), 'utf8');
  const documented = [...text.matchAll(/^\| `([\w-]+)` \| (\d+) \|/gm)].map(([, code, status]) => [
    code,
    Number(status),
  ]);
  expect(documented).toEqual(Object.entries(ERRORS).map(([code, [status]]) => [code, status]));
});

test('a thrown thing is told in words that hold nothing of it', () => {
  const thrown = toAppError(new Error('maren@brackenfold.example'));
  expect([thrown.code, thrown.message]).toEqual(['internal', errorWords('internal')]);
  expect(toAppError(Object.assign(new Error(), { cause: { code: 'SQLITE_FULL' } })).status).toBe(507);
  expect(toAppError(new AppError('empty-file', { name: 'list.csv' })).message).toMatch(/^list\.csv is empty/);
});

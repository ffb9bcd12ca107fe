import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { DecisionBody } from '@sieve/core';
import { closeDb, openDb } from '../db/open';
import { tidiedRows, type Source } from './tidied-rows';

const ROWS = 5_000;
const odd = Array.from({ length: ROWS / 2 }, (_, i) => 1 + i * 2);
const dir = mkdtempSync(join(tmpdir(), 'sieve-tidy-'));
const db = openDb(join(dir, 'sieve.db'), join(__dirname, '../../migrations'));
const sources: Source[] = [1, 2].map((id) => ({
  id,
  name: `list ${id}`,
  columns: [
    { name: 'Name', target: 'fullName' },
    { name: 'Tel', target: 'phone' },
  ],
}));
beforeAll(() => {
  const insert = db.$client.prepare('INSERT INTO records (source_id, line, cells) VALUES (?, ?, ?)');
  db.$client.transaction(() => {
    for (let i = 0; i < ROWS; i++)
      insert.run(1 + (i % 2), i, JSON.stringify([`MAREN ${i} OAKHILL`, `0113 496 0${100 + (i % 900)}`]));
  })();
});
afterAll(() => {
  closeDb(db);
  rmSync(dir, { recursive: true, force: true });
});

const tidy = (phoneCountry: string, ...bodies: DecisionBody[]) => {
  const decisions = bodies.map((body, id) => ({ id, body }));
  return tidiedRows(db, { sources, phoneCountry, decisions }, () => undefined);
};

test('each row comes once, in the order of the sources and their ids; the same input gives the very same rows', async () => {
  const rows = await tidy('GB');
  expect(rows.map(({ recordId }) => recordId)).toEqual([...odd, ...odd.map((id) => id + 1)]);
  expect(rows[0]).toMatchObject({ sourceId: 1, person: { firstName: 'Maren', phone: '+441134960100' } });
  expect(await tidy('GB')).toBe(rows);
  db.$client.prepare('INSERT INTO records (source_id, line, cells) VALUES (?, ?, ?)').run(2, ROWS, '["Idris Venn"]');
  expect(await tidy('GB')).toHaveLength(ROWS + 1);
});

test('what was refused or written is in its rows, and in no other', async () => {
  const plain = await tidy('GB');
  const edit: DecisionBody = { kind: 'edit', recordIds: [2], field: 'title', value: 'Owner' };
  const refuse: DecisionBody = { kind: 'refuse', recordId: 4, field: 'firstName' };
  const edited = await tidy('GB', edit, refuse);
  const different = edited.filter((row, i) => row !== plain[i]);
  expect(different.map(({ recordId, person }) => [recordId, person.firstName, person.title])).toEqual([
    [2, 'Maren', 'Owner'],
    [4, 'MAREN 3 OAKHILL', ''],
  ]);
  expect(await tidy('GB', edit, refuse)).toBe(edited);
  expect(await tidy('GB')).toBe(plain);
  const like: DecisionBody = { kind: 'refuse-like', field: 'firstName', was: 'MAREN 2 OAKHILL', is: 'Maren' };
  const [first, second] = await tidy('GB', like);
  expect([first!.person.firstName, second!.person.firstName]).toEqual(['Maren', 'MAREN 2 OAKHILL']);
});

import { NO_LISTS, type DecisionBody } from '@sieve/core';
import type { SourceIn } from '../sources/store';
import { testDb } from '../testing/fixtures';
import { nothingKept } from './kept';
import { tidiedRows } from './tidied-rows';

const ROWS = 5_000;
const odd = Array.from({ length: ROWS / 2 }, (_, i) => 1 + i * 2);
const { db } = testDb();
const kept = nothingKept();
const sources: SourceIn[] = [1, 2].map((id) => ({
  id,
  name: `list ${id}`,
  about: 'people',
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
const tidy = async (phoneCountry: string, ...bodies: DecisionBody[]) => {
  const decisions = bodies.map((body, id) => ({ id, body }));
  return (await tidiedRows(db, { sources, phoneCountry, lists: NO_LISTS, decisions }, kept, () => undefined)).rows;
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

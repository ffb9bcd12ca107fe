import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import * as fc from 'fast-check';
import { listStream } from './list-stream';

const dir = mkdtempSync(join(tmpdir(), 'sieve-list-'));
afterAll(() => rmSync(dir, { recursive: true }));

async function itemsOf(content: string | Buffer, encoding = 'utf-8'): Promise<unknown[]> {
  const file = join(dir, 'list.json');
  writeFileSync(file, content);
  const items: unknown[] = [];
  for await (const item of listStream(file, encoding)) items.push(item);
  return items;
}

test('a list, the longest list of objects in a document, or the document itself', async () => {
  const people = [{ name: 'Maren Oakhill', at: { firm: 'Brackenfold' } }, { name: 'Idris Venn' }, { name: 'Æ ☃' }];
  expect(await itemsOf(JSON.stringify(people))).toEqual(people);
  expect(await itemsOf(JSON.stringify([1, null, people]))).toEqual([1, null, people]);
  expect(
    await itemsOf(
      JSON.stringify({ total: 3, tags: ['a', 'b', 'c', 'd'], first: [people[0]], data: { rows: people, next: null } }),
    ),
  ).toEqual(people);
  expect(await itemsOf(JSON.stringify(people[0]))).toEqual([people[0]]);
  expect(await itemsOf('[]')).toEqual([]);
  expect(await itemsOf(Buffer.from(JSON.stringify(people), 'utf16le'), 'utf-16le')).toEqual(people);
});

test.each(['', '[{"a":1},', '{"a":[{"b":1}', '[{"a":1}]]', 'name,email'])(
  'what is no JSON is told: %s',
  async (text) => {
    await expect(itemsOf(text)).rejects.toThrow();
  },
);

test('whatever a list holds comes out as it went in (fast-check)', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.dictionary(fc.string(), fc.jsonValue(), { noNullPrototype: true }), { minLength: 1 }),
      async (list) => {
        // The library's objects have no room for this one name.
        fc.pre(!JSON.stringify(list).includes('__proto__'));
        expect(JSON.stringify(await itemsOf(JSON.stringify({ rows: list })))).toBe(JSON.stringify(list));
      },
    ),
    { numRuns: 60 },
  );
});

import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';

const root = join(__dirname, '..');
const files = (readdirSync(root, { recursive: true }) as string[])
  .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts') && !file.startsWith('testing/'))
  .map((file) => ({ file, text: readFileSync(join(root, file), 'utf8') }));
const subjectOf = (file: string) => relative('.', file).split('/')[0]!;
const owners = new Map(
  files
    .filter(({ file }) => file.endsWith('/tables.ts'))
    .flatMap(({ file, text }) =>
      [...text.matchAll(/sqliteTable\(\s*'(\w+)'/g)].map(([, table]) => [table!, subjectOf(file)] as const),
    ),
);

test('SQL names the tables of its own subject only', () => {
  expect(owners.size).toBeGreaterThan(15);
  const strangers = files.flatMap(({ file, text }) =>
    [...text.matchAll(/\b(?:FROM|JOIN|INTO|UPDATE)\s+`?(\w+)/g)]
      .map(([, table]) => table!)
      .filter((table) => owners.has(table) && owners.get(table) !== subjectOf(file))
      .map((table) => `${file}: ${table}`),
  );
  expect(strangers).toEqual([]);
});

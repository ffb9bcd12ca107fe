import { changeSearch, type SearchChange } from './change';
import { parseSearch } from './parse';
import { postingAge } from './posting-age';
import { printSearch } from './print';

const after = (text: string, ...changes: SearchChange[]) => {
  let { search } = parseSearch(text);
  for (const change of changes) {
    const next = changeSearch(search!, change);
    if (next.error) return next.error.code;
    search = next.search;
  }
  return printSearch(search!);
};

test('what is typed behind the conditions joins them; a whole search takes their place', () => {
  const from = 'people where title: "quality manager"';
  expect(after(from, { kind: 'type', text: 'title: technical; not title: assistant' })).toBe(
    'people where title: "quality manager" or technical; not title: assistant',
  );
  expect(after(from, { kind: 'type', text: 'title: "Quality Manager"' })).toBe(from);
  expect(after(from, { kind: 'type', text: 'companies where growth: 8..' })).toBe('companies where growth: 8..');
  expect(after(from, { kind: 'type', text: 'shoe: 9' })).toBe('no-such-field');
});

test('a value is written, added to, quoted, turned round and removed in its place; the last takes its condition along', () => {
  const from = 'people where title: technical or driver; years: 1..10';
  expect(after(from, { kind: 'write', condition: 0, at: 0, text: '"head of quality", owner' })).toBe(
    'people where title: "head of quality" or owner or driver; years: 1..10',
  );
  expect(after(from, { kind: 'write', condition: 1, at: 0, text: 'ten' })).toBe('not-a-number');
  expect(after(from, { kind: 'add', condition: 1, text: '15..' })).toContain('years: 1..10 or 15..');
  expect(after(from, { kind: 'exact', condition: 0, at: 0 })).toContain('title: "technical" or driver');
  expect(after(from, { kind: 'turn', condition: 0, at: 1 })).toBe(
    'people where title: technical; not title: driver; years: 1..10',
  );
  expect(after(from, { kind: 'remove', condition: 1, at: 0 }, { kind: 'remove', condition: 0, at: 0 })).toBe(
    'people where title: driver',
  );
});

// Common practice, no source: postings are fresh for 24 hours and stale after three months.
test('postings are fresh for a day and stale after three months', () => {
  expect([0, 1, 2, 90, 91].map(postingAge)).toEqual(['fresh', 'fresh', 'usual', 'usual', 'stale']);
});

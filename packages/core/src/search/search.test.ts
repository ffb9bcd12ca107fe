import { SEARCH_FIELDS, search as searchSchema, SUBJECTS, type Condition, type Search } from '../model/search';
import { seededRandom } from '../text/random';
import { fits, termHolds } from './evaluate';
import { looseTerms, misfits, quoted } from './looseness';
import { MOST_TERMS, parseSearch } from './parse';
import { printSearch } from './print';

const read = (text: string): Search => {
  const { search, error } = parseSearch(text);
  if (error) throw new Error(`${error.code} at ${error.at}`);
  return searchSchema.parse(search);
};

test('a search is one line of text, both ways', () => {
  const text =
    'people where title: "quality manager" or technical; not title: assistant; team: quality; years: 1..10 or 20..';
  expect(read(text).conditions).toEqual([
    {
      field: 'title',
      not: false,
      terms: [
        { text: 'quality manager', exact: true },
        { text: 'technical', exact: false },
      ],
    },
    { field: 'title', not: true, terms: [{ text: 'assistant', exact: false }] },
    { field: 'team', not: false, terms: [{ text: 'quality', exact: true }] },
    {
      field: 'years',
      not: false,
      ranges: [
        { from: 1, to: 10 },
        { from: 20, to: null },
      ],
    },
  ]);
  expect(read('title: head quality, "Dairy ""Old"" Co"; country: GB').conditions[0]).toMatchObject({
    terms: [
      { text: 'head quality', exact: false },
      { text: 'Dairy "Old" Co', exact: true },
    ],
  });
  expect(printSearch(read('companies where growth: -100..-20 , 8..'))).toBe('companies where growth: -100..-20 or 8..');
});

test('what is printed is read back as it was, over 2,000 random searches', () => {
  const words = ['quality', 'Head of', 'R&D', 'O’Connor', 'say "cheese"', 'orange', 'not me', 'a;b', 'x: y', 'or'];
  for (let seed = 1; seed <= 2000; seed++) {
    const random = seededRandom(seed);
    const pick = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)]!;
    const about = pick(SUBJECTS);
    const fields = SEARCH_FIELDS.filter(({ of }) => of.includes(about));
    const conditions = Array.from({ length: Math.floor(random() * 5) }, (): Condition => {
      const field = pick(fields);
      const not = random() < 0.3;
      if (field.kind === 'number') {
        const from = random() < 0.2 ? null : Math.floor(random() * 200) - 100;
        return {
          field: field.key,
          not,
          ranges: [{ from, to: random() < 0.2 ? null : (from ?? 0) + Math.floor(random() * 9) }],
        };
      }
      const exact = field.kind === 'choice' || random() < 0.5;
      const text = field.values ? pick(field.values) : exact ? pick(words) : pick(words.slice(0, 4));
      return { field: field.key, not, terms: [{ text, exact }] };
    });
    const order = SEARCH_FIELDS.map(({ key }) => key);
    const sorted = [...conditions].sort((a, b) => order.indexOf(a.field) - order.indexOf(b.field));
    expect(read(printSearch({ about, conditions }))).toEqual({ about, conditions: sorted });
  }
});

test.each([
  ['titel: x', 'no-such-field', 0, 5],
  ['title quality', 'colon-missing', 0, 13],
  ['title: "quality', 'quote-not-closed', 7, 8],
  ['title: x; years: ten', 'not-a-number', 17, 3],
  ['years: 9..2', 'range-turned', 7, 4],
  ['team: cheese', 'not-a-value', 6, 6],
  ['title: ', 'value-missing', 7, 1],
  ['companies where title: x', 'no-such-field', 16, 5],
])('%s points at the place', (text, code, at, length) => {
  expect(parseSearch(text).error).toMatchObject({ code, at, length });
});

test('an OR list of 500 names is read, one of 501 is not', () => {
  const list = (n: number) => `company: ${Array.from({ length: n }, (_, i) => `"Firm ${i}"`).join(' or ')}`;
  expect(read(list(MOST_TERMS)).conditions[0]).toMatchObject({ terms: { length: 500 } });
  expect(parseSearch(list(MOST_TERMS + 1)).error).toMatchObject({ code: 'too-many' });
});

test('a phrase is its words in order, words alone come in any order', () => {
  expect(termHolds({ text: 'quality manager', exact: true }, 'Group Quality Manager, UK')).toBe(true);
  expect(termHolds({ text: 'quality manager', exact: true }, 'Manager of Quality')).toBe(false);
  expect(termHolds({ text: 'quality manager', exact: false }, 'Manager of Quality')).toBe(true);
  expect(termHolds({ text: 'cafe', exact: true }, 'Café Holm')).toBe(true);
  const dairy = read('companies where sector: Dairy');
  expect([fits(dairy, { sector: 'Dairy' }), fits(dairy, { sector: 'Dairy equipment' }), fits(dairy, {})]).toEqual([
    true,
    false,
    false,
  ]);
  expect(fits(read('not team: quality'), {})).toBe(true);
});

test('a sample says which loose term lets the misfits in', () => {
  const asked = read('title: "head of quality" or quality manager; country: GB');
  const rows = [
    { title: 'Head of Quality', country: 'GB' },
    { title: 'Sales Manager, Quality Cheese', country: 'GB' },
    { title: 'Quality Manager', country: 'GB' },
    { title: 'Delivery Driver', country: 'IE' },
  ].map((found) => ({ found, fits: misfits(asked, found).length === 0 }));
  expect(rows.map(({ fits: fit }) => fit)).toEqual([true, false, true, false]);
  expect(misfits(asked, rows[1]!.found)).toEqual([{ condition: 0, code: 'loose' }]);
  expect(misfits(asked, rows[3]!.found)).toEqual([
    { condition: 0, code: 'lacks' },
    { condition: 1, code: 'lacks' },
  ]);
  const [loose] = looseTerms(asked, rows);
  expect(loose).toMatchObject({ text: 'quality manager', misfits: 2 });
  expect(printSearch(quoted(asked, loose!))).toBe(
    'people where title: "head of quality" or "quality manager"; country: GB',
  );
});

import fc from 'fast-check';
import { cssPath } from './css-path';
import { fieldsOf } from './fields';
import { readPage, textOf } from './page';
import { findRecordSets } from './record-sets';

const best = (html: string) => {
  const [set] = findRecordSets(readPage(html));
  return {
    count: set?.records.length ?? 0,
    path: set ? cssPath(set) : '',
    fields: set ? Object.fromEntries(fieldsOf(set).map(({ name, values }) => [name, values])) : {},
  };
};

const NAMES = [
  'Aoife Brannagh',
  'Piers Hathersage',
  'Gwenllian Parry',
  'Benedikt Farrow',
  'Ffion Meredith',
  'Rhona MacAskill',
];
const ROLES = [
  'Technical Manager',
  'Managing Director',
  'Quality Manager',
  'Head of Production',
  'Owner',
  'Technologist',
];

/** Cards in rows of three, an advert among them, a menu and sponsors beside them; every third lacks its phone. */
const guild = (n: number) => {
  const card = (i: number) => `
    <div class="col"><div class="card"><img src="/p/${i}.png" alt="">
      <h3><a href="/members/${i}">${NAMES[i % 6]}</a></h3><p class="role">${ROLES[(i * 5) % 6]}</p>
      <p>Firm ${i} · Wells</p>${i % 3 === 2 ? '' : `<p><b>Phone:</b> 0113 496 0${String(100 + i)}</p>`}
      <p><b>In stock:</b> ${n - i}</p></div></div>`;
  const rows = Array.from({ length: Math.ceil(n / 3) }, (_, r) => {
    const cards = Array.from({ length: Math.min(3, n - r * 3) }, (_, c) => card(r * 3 + c)).join('');
    return `<div class="row">${cards}</div>${r === 1 ? '<div class="advert"><img src="ad.png">Buy vats</div>' : ''}`;
  });
  const menu = '<nav><ul>' + '<li><a href="/x">Members of the guild</a></li>'.repeat(21) + '</ul></nav>';
  return `<!doctype html><html><head><title>Guild</title><script>let a = '<div class="col">'</script></head>
    <body class="sidebar-mini">${menu}<main>${rows.join('')}</main>
    <aside><ul>${'<li>Ashlar Vats</li>'.repeat(8)}</ul></aside></body></html>`;
};

test('cards in rows are found, not the menu nor the sponsors; each field keeps to its records', () => {
  const { count, path, fields } = best(guild(23));
  expect(count).toBe(23);
  expect(path).toBe('html > body > main > div.row > div');
  expect(Object.keys(fields)).toEqual(['Image', 'Text', 'Link', 'Role', 'Text 2', 'Phone', 'In stock', 'Text 3']);
  expect(fields['Text']!.slice(0, 3)).toEqual(NAMES.slice(0, 3));
  expect(fields['Phone']!.filter(Boolean)).toHaveLength(16);
  expect([fields['Phone']![2], fields['In stock']![2]]).toEqual(['', '21']);
  expect(fields['Link']![7]).toBe('/members/7');
});

test('a table is named by its headings; cells that span keep the others in their column', () => {
  const row = (i: number) =>
    i === 4
      ? `<tr><td>${NAMES[4]}</td><td colspan="2">left</td><td>${i}</td></tr>`
      : `<tr><td>${NAMES[i]}</td><td>${ROLES[i]}</td><td><a href="mailto:a${i}@firm.example">write</a></td><td>${i}</td></tr>`;
  const { fields, count } = best(
    `<table id="members"><tr><th>Name</th><th>Role</th><th>Email</th><th>No</th></tr>${[0, 1, 2, 3, 4, 5].map(row).join('')}</table>`,
  );
  expect(count).toBe(6);
  expect(Object.keys(fields)).toEqual(['Name', 'Role', 'Email', 'Email link', 'No']);
  expect([fields['Role']![4], fields['Email']![4], fields['No']![4]]).toEqual(['left', '', '4']);
  expect(fields['Email link']![1]).toBe('mailto:a1@firm.example');
});

test('records made of several siblings: terms with their text, rows of two, headings with paragraphs', () => {
  const list = NAMES.map((name, i) => `<dt>${name}</dt><dd>${ROLES[i]}, met at the show of ${1990 + i}</dd>`).join('');
  expect(best(`<dl class="people">${list}</dl>`)).toMatchObject({ count: 6, path: 'html > body > dl > dt' });
  const rows = NAMES.map(
    (name, i) => `<tr><td>${name}</td><td>${i}</td></tr><tr><td colspan="2">${ROLES[i]}</td></tr>`,
  );
  const { count, fields } = best(`<table>${rows.join('')}</table>`);
  expect([count, fields['Text']]).toEqual([6, ROLES]);
  const headed = NAMES.map((name, i) => `<h3>${name}</h3><p>${ROLES[i]}</p><p>Firm ${i}, Wells</p>`).join('');
  expect(best(`<main>${headed}</main>`).count).toBe(6);
});

test('a page says where it came from, and its links are made whole', () => {
  const said = (head: string) => readPage(`${head}<body><p>x</p>`).address;
  expect(said('<base href="https://guild.example/members/">')).toBe('https://guild.example/members/');
  expect(said('<link rel="canonical" href="https://guild.example/c">')).toBe('https://guild.example/c');
  expect(said('<!-- saved from url=(0023)https://guild.example/s --><title>x</title>')).toBe('https://guild.example/s');
  expect(said('<base href="javascript:x()">')).toBe('');
  const list = '<ul>' + '<li><a href="p/1">Maren</a> of Wells</li>'.repeat(3) + '</ul>';
  const [set] = findRecordSets(readPage(list));
  expect(fieldsOf(set!, (link) => `https://guild.example/${link}`)[1]).toMatchObject({
    name: 'Link',
    values: Array(3).fill('https://guild.example/p/1'),
  });
});

test('nothing is run, what is hidden is not read, and text is read as one reads it', () => {
  const page = readPage('<p>Maren<br>Oakhill <span hidden>spam</span><script>x()</script><b>Quality</b>&nbsp;lead</p>');
  expect(textOf(page.root)).toBe('Maren Oakhill Quality lead');
  expect(findRecordSets(readPage('just words'))).toEqual([]);
  expect(findRecordSets(readPage('<div>'.repeat(100_000)))).toEqual([]);
});

test('whatever a page holds, nothing breaks, and all records have all fields', () => {
  const tag = fc.constantFrom(
    'div',
    'p',
    'ul',
    'li',
    'table',
    'tr',
    'td',
    'th',
    'dl',
    'dt',
    'dd',
    'a',
    'img',
    'span',
    'br',
  );
  const piece = fc.oneof(
    fc
      .tuple(tag, fc.constantFrom('', ' class="a b1"', ' id="x" class=odd', ' colspan="999999"'))
      .map(([name, more]) => `<${name}${more}>`),
    tag.map((name) => `</${name}>`),
    fc.string({ maxLength: 12 }),
    fc.constantFrom('Phone: 1', 'a · b', '__proto__', '<!--'),
  );
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 120 }), (pieces) => {
      for (const set of findRecordSets(readPage(pieces.join(''))))
        for (const { name, values } of fieldsOf(set))
          if (name === '' || values.length !== set.records.length) return false;
      return true;
    }),
    { numRuns: 300, seed: 2026 },
  );
});

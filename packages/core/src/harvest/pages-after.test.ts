import { cellsAs, fieldsOf, REST } from './fields';
import { lastNumber, nextLinks, nextPage } from './next-page';
import { readPage } from './page';
import { previewOf } from './preview';
import { findRecordSets } from './record-sets';
import { pathOf, sameSet } from './same-set';
import { lowestOf, numberIn, rowsBeforeTurn, zeroNear } from './stop-rules';

const SITE = 'https://guild.example';
const whole = (here: string) => (link: string) => (URL.canParse(link, here) ? new URL(link, here).href : link);
const next = (body: string, here = `${SITE}/members?p=3`, head = '') => {
  const page = readPage(`<html><head>${head}</head><body>${body}</body></html>`);
  const [best] = nextLinks(page, here, whole(here));
  return best ? `${best.address.replace(SITE, '')} ${best.signs.join(',')}` : '';
};

test('the next page is found by what sites use to say it, and by more than one sign', () => {
  expect(next('', undefined, '<link rel="next" href="/members?p=4">')).toBe('/members?p=4 rel');
  expect(next('<a rel="next" href="?p=4">Next ›</a>')).toBe('/members?p=4 rel,word,offset');
  expect(next('<a href="/m/4">Nächste Seite</a><a href="/m/2">Zurück</a>')).toBe('/m/4 word');
  for (const word of 'Next,Weiter,Suivant,Siguiente,Successivo,Volgende,Próxima,Następna,Nästa,Næste,Ar aghaidh'.split(
    ',',
  ))
    expect(next(`<a href="/x">Home</a><a href="/go">${word}</a>`)).toBe('/go word');
  expect(
    next('<nav><a href="/m/1">1</a><a href="/m/2">2</a><span class="current">3</span><a href="/m/4">4</a></nav>'),
  ).toBe('/m/4 number');
  expect(
    next(
      '<ul><li><a href="/m">1</a></li><li class="active"><a href="/m/2">2</a></li><li><a href="/m/3">3</a></li></ul>',
    ),
  ).toBe('/m/3 number');
  expect(next('<a href="/m/2">‹</a><a href="/m/4">›</a><a aria-label="Last page" href="/m/9">»</a>')).toBe(
    '/m/4 arrow',
  );
  expect(next('<button data-url="/members?after=72">Load more members</button>')).toBe('/members?after=72 more');
  expect(next('<a href="/l?start=50">51 to 75</a><a href="/l?start=25">26 to 50</a>', `${SITE}/l`)).toBe(
    '/l?start=25 offset',
  );
  expect(
    next('<a href="/l?sort=name">Name</a><a href="https://other.example/?p=4">Next</a><a href="?p=3#top">Next</a>'),
  ).toBe('');
  expect(next('<span class="disabled"><a href="/m/9">Next</a></span>')).toBe('');
});

test('links are relative to what the page says, not to the address that search engines are given', () => {
  const page = readPage(
    `<head><link rel="canonical" href="https://www.guild.example/members"><base href="/m/"></head><a rel="next" href="4">Next</a>`,
  );
  expect([page.address, page.base]).toEqual(['https://www.guild.example/members', '/m/']);
  expect(nextPage(page, `${SITE}/m/3`, whole(`${SITE}/m/`), null)).toBe(`${SITE}/m/4`);
});

test('what a person chose is followed on every page, whatever else looks likelier', () => {
  const page = readPage('<a rel="next" href="/adverts">Next</a><a href="/members/4">Onwards</a>');
  expect(nextPage(page, `${SITE}/members/3`, whole(SITE), { text: 'Onwards' })).toBe(`${SITE}/members/4`);
  expect(nextPage(page, `${SITE}/members/3`, whole(SITE), { text: 'Gone' })).toBe('');
  const pager = readPage('<p class="pager"><a href="/m/2">2</a> <a href="/m/3">3</a> … <a href="/m/26">26</a></p>');
  expect(lastNumber(pager, `${SITE}/m/1`, whole(SITE))).toBe(26);
});

const card = (name: string, more = '') =>
  `<div class="member"><h3><a href="/p/${name}">${name}</a></h3><p class="role">Owner</p><p class="town">Wells</p>${more}</div>`;
const listOf = (names: readonly string[], more: (i: number) => string = () => '') =>
  `<body><main class="list">${names.map((name, i) => card(name, more(i))).join('')}</main><aside><ul>${'<li><a href="/v">Vats</a></li>'.repeat(9)}</ul></aside></body>`;
const NAMES = ['Aoife Brannagh', 'Piers Hathersage', 'Gwenllian Parry', 'Benedikt Farrow', 'Ffion Meredith'];

test('the same records are found on the pages after, other lists and another layout are not taken for them', () => {
  const [set] = findRecordSets(readPage(listOf(NAMES)));
  const fields = [...fieldsOf(set!), { ...REST, values: [] }];
  const known = { path: pathOf(set!), fields };
  const second = readPage(
    listOf(['Rhona MacAskill', 'Conor Delahunt', 'Owen Pryce'], (i) =>
      i === 1 ? '<p class="fax">0113 496 0001</p>' : '',
    ),
  );
  const again = sameSet(findRecordSets(second), known);
  expect(
    cellsAs(again!, fields, whole(SITE)).map((cells) =>
      Object.fromEntries(cells.map((cell, i) => [fields[i]!.name, cell])),
    ),
  ).toMatchObject([
    { Text: 'Rhona MacAskill', Other: '' },
    { Text: 'Conor Delahunt', Other: '0113 496 0001', Link: `${SITE}/p/Conor%20Delahunt` },
    { Text: 'Owen Pryce', Role: 'Owner', Town: 'Wells' },
  ]);
  const other = `<table>${NAMES.map((name) => `<tr><td>${name}</td><td>Owner</td><td>Wells</td></tr>`).join('')}</table>`;
  expect(sameSet(findRecordSets(readPage(other)), known)).toBeUndefined();
  expect(
    sameSet(findRecordSets(readPage(`<ul>${'<li><a href="/v">Vats</a></li>'.repeat(9)}</ul>`)), known),
  ).toBeUndefined();
});

test('a column turns where all after it is blank or zero; a gap in the middle is none', () => {
  expect(rowsBeforeTurn(['9', '', '4', '0', '0'], 'blank or zero')).toBe(3);
  expect(rowsBeforeTurn(['9', '0', '4'], 'zero')).toBe(3);
  expect(rowsBeforeTurn(['0 in stock', ''], 'blank')).toBe(1);
  expect(['in stock 1,204', '1.204,50', '-3', 'none', '12.5'].map(numberIn)).toEqual([1204, 1204, -3, null, 12.5]);
  expect(lowestOf(['in stock 42', '', '17 left'])).toBe(17);
  expect([zeroNear([40, 30, 20]), zeroNear([5, 5]), zeroNear([3]), zeroNear([null, 10, 8])]).toEqual([
    5,
    null,
    null,
    7,
  ]);
});

test('what is shown of a page runs nothing, loads nothing and sends nothing', () => {
  const hostile = `<head><style>@import "https://a.example/x.css"; b{background:url(https://a.example/y)}</style></head>
    <body onload="steal()"><script>alert(1)</script><form action="https://a.example"><input name="x"></form>
    <iframe src="https://a.example"></iframe><div style="background:url(//a.example/z)"><img src="https://a.example/p.png" alt="&lt;b&gt;" onerror="x()">
    <a href="javascript:alert(1)" ping="https://a.example">go</a><svg><script>1</script></svg><object data="x"></object><meta http-equiv="refresh" content="0"></div>
    ${NAMES.map((name) => card(name)).join('')}<template><b>t</b></template></body>`;
  const page = readPage(hostile);
  const set = findRecordSets(page).find(({ records }) => records.length === 5)!;
  const shown = previewOf(page, { set, fields: fieldsOf(set), next: '', resolve: (link) => link });
  expect(shown).not.toMatch(
    /<(script|iframe|form|input|img|svg|object|meta http|link|base)|\son\w+=|href=|src=|javascript:|a\.example|@import/i,
  );
  expect(shown).toContain('&lt;b&gt;');
  expect(shown.match(/data-record="/g)).toHaveLength(5);
  expect(shown).toMatch(/<mark data-field="\d">Aoife Brannagh<\/mark>/);
});

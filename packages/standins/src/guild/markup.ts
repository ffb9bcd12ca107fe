export interface Member {
  name: string;
  title: string;
  firm: string;
  town: string;
  /** '' for none. */
  phone: string;
  slug: string;
  stock: number;
  cheese: string;
}

const SPONSORS = [
  'Ashlar Vats',
  'Fernie Salt',
  'Cold Lantern',
  'Oakum Wax',
  'Brine & Co',
  'Hurdle Cloths',
  'Tarn Rennet',
  'Skep Boxes',
];
const NEWS = [
  ['1 March', 'Spring show moves to the corn hall; entries by 1 March.'],
  ['12 February', 'The tasting panel looks for two more judges.'],
  ['30 January', 'New guidance on ageing rooms is out, with humidity tables.'],
  ['9 January', 'Dues stay as they were.'],
  ['2 January', 'The office is open again.'],
] as const;

const escape = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');

/** Members as cards, an advert after every ninth. */
export const card = (members: readonly Member[]): string =>
  `<div class="cards">${members
    .map(
      ({ name, title, firm, town, phone, slug, stock, cheese }, i) => `
  <article class="member"><h3>${escape(name)}</h3><p class="role">${escape(title)}</p><p class="firm">${escape(firm)}</p>
    <p class="where"><span class="town">${escape(town)}</span> · ${phone ? `<span class="phone">${phone}</span>` : '<span class="none">no phone</span>'}</p>
    <p class="foot"><a class="profile" href="/members/${slug}">profile</a> · <span class="kind">${cheese}</span> · <span class="stock">in stock ${stock}</span></p></article>${
      i % 9 === 8 ? '<aside class="advert"><a href="/advert/vats">Vats that last: ask Ashlar</a></aside>' : ''
    }`,
    )
    .join('')}</div>`;

/** The same members as the site wrote them before, on a page that nobody has redone. */
export const definition = (members: readonly Member[]): string =>
  `<table class="old">${members
    .map(
      ({ name, firm, town, slug, stock }) =>
        `<tr><td>${stock}</td><td>${escape(town)}: <b>${escape(firm)}</b> (${escape(name)}) <a href="/members/${slug}">more</a></td></tr>`,
    )
    .join('')}</table>`;

export function shell({
  page,
  pages,
  sort,
  body,
}: {
  page: number;
  pages: number;
  sort: string;
  body: string;
}): string {
  const at = (p: number) => `/members?p=${p}${sort === 'stock' ? '' : `&amp;sort=${sort}`}`;
  const numbers = [...new Set([1, 2, 3, page - 1, page, page + 1, pages])]
    .filter((p) => p >= 1 && p <= pages)
    .sort((a, b) => a - b);
  const pager = numbers
    .map((p) => (p === page ? `<span class="current">${p}</span>` : `<a href="${at(p)}">${p}</a>`))
    .join(' ');
  const next = page < pages ? ` <a rel="next" href="${at(page + 1)}">Next ›</a>` : '';
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>Members · The Curd Guild</title><style>
body{font:14px/1.45 Georgia,serif;color:#4a4945} header{display:flex;gap:20px;align-items:baseline;border-bottom:1px solid #e2ded2;padding-bottom:8px}
header b{font-size:19px} header nav a{margin-right:14px} .sort{margin-left:auto;font-size:12px} .page{display:grid;grid-template-columns:1fr 150px;gap:20px;margin-top:14px}
.cards{display:grid;grid-template-columns:repeat(3,1fr);gap:10px} .member{padding:8px 10px;border:1px solid #e6e2d7} .member h3{margin:0;font-size:14px} .member p{margin:0;font-size:12.5px}
.advert{padding:8px 10px;background:#f6f2e8;font-size:12px;align-self:center} .pager{text-align:center;margin:16px 0;font-size:13px} .pager a,.pager span{margin:0 5px}
.beside{font-size:12px;border-left:1px solid #e2ded2;padding-left:14px} .beside ul{list-style:none;padding:0} .beside li{border:1px solid #e6e2d7;margin-bottom:5px;text-align:center}
footer{border-top:1px solid #e2ded2;font-size:11px} footer ul{list-style:none;padding:0} footer li{display:inline-block;margin-right:10px}
</style><script>document.title = 'tracked'</script></head><body>
<header><b>The Curd Guild</b><nav><a href="/">Home</a><a href="/members?p=1">Members</a><a href="/shows">Shows</a><a href="/news">News</a></nav>
<span class="sort">Members with wheels for sale, most first · by <a href="/members?p=1&amp;sort=name">name</a> · <a href="/members?p=1&amp;sort=town">town</a></span></header>
<div class="page"><main><h2>Members</h2>${body}<p class="pager">${pager}${next}</p></main>
<div class="beside"><h4>Sponsors</h4><ul>${SPONSORS.map((name, i) => `<li><a href="/sponsor/${i}">${escape(name)}</a></li>`).join('')}</ul>
<h4>News</h4>${NEWS.map(([date, text]) => `<div class="item"><b>${date}</b><p>${text}</p></div>`).join('')}</div></div>
<footer><ul>${['About', 'Rules', 'Officers', 'Panels', 'Shows', 'Awards', 'Contact', 'Privacy'].map((name) => `<li><a href="/${name.toLowerCase()}">${name}</a></li>`).join('')}</ul></footer>
</body></html>`;
}

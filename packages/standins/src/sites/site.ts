import { chance, pick, weighted } from '../kit/chance';
import type { Firm } from '../world/world';
import { CHAFF, CHEESES, PARKED, SAYS, SAYS_ABROAD } from './sentences';
import { factsOf, tradeOf, type Trade } from './trade';

/** How a firm's site behaves. `unregistered`: its domain takes mail and has no host of its own; `private`: robots.txt keeps all to itself. */
export type SiteManner = 'plain' | 'slow' | 'down' | 'parked' | 'unregistered' | 'private' | 'moved';

export interface SitePage {
  path: string;
  title: string;
  lines: string[];
}

export const mannerOf = ({ id }: Pick<Firm, 'id'>): SiteManner =>
  weighted(
    { plain: 86, slow: 3, down: 2, parked: 2, unregistered: 2, private: 1, moved: 4 } satisfies Record<
      SiteManner,
      number
    >,
    'site',
    id,
  );

/** The pages of a firm's site, the first is its home. */
export function pagesOf(firm: Firm): SitePage[] {
  if (mannerOf(firm) === 'parked') return [{ path: '/', title: firm.domain, lines: [...PARKED] }];
  const trade = tradeOf(firm);
  const language = weighted({ en: 92, de: 4, fr: 4 }, 'language', firm.id);
  const says = language === 'en' ? SAYS[trade] : SAYS_ABROAD[language][trade === 'cheese' ? 'cheese' : 'other'];
  const filled = (line: string, i: number) =>
    line
      .replace('{c}', pick(CHEESES, 'cheese', firm.id, i))
      .replace('{t}', firm.city)
      .replace('{n}', String(2 + Math.floor(chance('figure', firm.id, i) * 60)))
      .replace('{f}', `${pick(['Underbank', 'Netherlea', 'Crookfold', 'Whinmoor'], 'other', firm.id, i)} Farm`);
  const drawn = (list: readonly string[], share: number, what: string) =>
    list.filter((line) => chance(what, line, firm.id) < share).map(filled);
  const own = drawn(says, 0.55, 'says');
  // Some makers sell what others make, too.
  if (trade === 'cheese' && chance('sells', firm.id) < 0.25)
    own.push('Our shop also sells the cheeses of our neighbours.');
  const half = Math.ceil(own.length / 2);
  const { hiring } = factsOf(firm);
  const pages: SitePage[] = [
    { path: '/', title: firm.name, lines: [...drawn(CHAFF.slice(0, 5), 0.5, 'home'), ...own.slice(0, half)] },
    {
      path: aboutPath(firm, trade),
      title: 'About us',
      lines: [...own.slice(half), ...drawn(CHAFF.slice(4), 0.4, 'about')],
    },
    {
      path: '/contact',
      title: 'Contact',
      lines: [filled('Find us five minutes from the middle of {t}.', 9), `${firm.city}, ${firm.region}`],
    },
  ];
  if (hiring.length > 0)
    pages.push({ path: '/work', title: 'Work with us', lines: hiring.map((role) => `We are looking for: ${role}.`) });
  if (chance('news', firm.id) < 0.5) pages.push({ path: '/news', title: 'News', lines: drawn(CHAFF, 0.4, 'news') });
  return pages;
}

const aboutPath = ({ id }: Firm, trade: Trade): string =>
  pick(
    trade === 'cheese' ? ['/our-cheese', '/about', '/story'] : ['/services', '/about', '/products'],
    'about path',
    id,
  );

/** A page in one of three kinds of markup. */
export function markupOf(firm: Firm, page: SitePage, pages: readonly SitePage[]): string {
  const links = pages.map(({ path, title }) => `<a href="${path}">${escaped(title)}</a>`);
  const lines = page.lines.map(escaped);
  const body = {
    sections: `<header><nav>${links.join(' ')}</nav></header><main><h1>${escaped(page.title)}</h1>${lines.map((line) => `<p>${line}</p>`).join('')}</main>`,
    divs: `<div class="m">${links.map((link) => `<div>${link}</div>`).join('')}</div><div class="t">${escaped(page.title)}</div><div class="x">${lines.join('<br>')}</div>`,
    table: `<table><tr><td>${links.join('<br>')}</td><td><b>${escaped(page.title)}</b><ul>${lines.map((line) => `<li>${line}</li>`).join('')}</ul></td></tr></table>`,
  }[weighted({ sections: 5, divs: 3, table: 2 }, 'markup', firm.id)];
  return `<!doctype html><html><head><meta charset="utf-8"><title>${escaped(page.title)}</title><script>var seen = 1;</script></head><body>${body}</body></html>`;
}

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');

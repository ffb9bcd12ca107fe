import { textOf, walk, type Page, type PageNode } from './page';

/** What speaks for a link being the way to the next page. */
export type NextSign = 'rel' | 'word' | 'number' | 'more' | 'arrow' | 'offset';

/** A link that may lead to the page after this one. */
export interface NextLink {
  address: string;
  text: string;
  signs: NextSign[];
  /** 0 to 1. */
  sure: number;
}

/** How the next page is found on every page: by the words of a link that a person chose, else by what is likeliest. */
export type NextRule = { text: string } | null;

const SURE: Record<NextSign, number> = {
  rel: 0.97,
  word: 0.9,
  number: 0.85,
  more: 0.75,
  arrow: 0.7,
  offset: 0.55,
};
const LISTED = 12;
/** Characters of what holds the numbers of pages. */
const LONGEST_PAGER = 400;

/** In English, German, French, Spanish, Italian, Dutch, Portuguese, Polish, Swedish, Danish and Irish; common practice, no source. */
const NEXT = new RegExp(
  '^(' +
    [
      'next( page| results?)?|older( posts| entries)?',
      'weiter|nächste( seite)?|vorwärts',
      '(page )?suivante?s?',
      '(página )?siguientes?',
      '(pagina )?(successiv[ao]|seguente)|avanti',
      'volgende( pagina)?|verder',
      '(página )?(próxima|seguinte)( página)?',
      'następna( strona)?|dalej',
      'nästa( sida)?',
      'næste( side)?',
      'ar aghaidh|an chéad leathanach eile',
    ].join('|') +
    ')$',
);
const MORE = new RegExp(
  '^(' +
    [
      '(load|show|see|view) (more|further)( results| records| members| entries)?|more( results)?',
      'mehr( anzeigen| laden)?|weitere( anzeigen| laden)?',
      '(voir|afficher|charger) (plus|la suite)( de résultats)?',
      '(ver|cargar|mostrar) más( resultados)?',
      '(mostra|carica) (altri|altro|di più)|altri risultati',
      '(meer|toon meer)( laden| tonen| resultaten)?',
      '(ver|carregar|mostrar) mais',
      '(pokaż|załaduj) więcej',
      '(visa|ladda|vis|indlæs) (fler|flere|mer|mere)',
      'tuilleadh',
    ].join('|') +
    ')$',
);
const ARROWS = /^[›»→>⟩❯▶⇒]+$/;
/** What leads to the end, or back. */
const LAST = /\b(last|letzte|dernier|dernière|última|ultima|laatste|prev|previous|back|zurück|précédent|anterior)\b/i;

const wordsOf = (text: string) =>
  text
    .toLowerCase()
    .replace(/[›»→>⟩❯▶⇒…]|\.{3}/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

interface Link {
  node: PageNode;
  address: string;
  text: string;
}

/**
 * The links of a page that may lead to the next one, likeliest first: by `rel`, by words, by the number that follows, by an arrow, by a
 * "load more" address, by an offset in the query that is a little larger. None where the page is the last, as far as can be seen.
 *
 * @param here the address of the page, whole; '' when it is not known
 * @param resolve makes a link whole
 */
export function nextLinks(page: Page, here: string, resolve: (link: string) => string): NextLink[] {
  const links = linksOf(page, resolve).filter(({ address }) => isNear(address, here));
  const found = new Map<string, NextLink>();
  const add = (address: string, text: string, sign: NextSign) => {
    const known = found.get(address) ?? { address, text, signs: [], sure: 0 };
    if (known.signs.includes(sign)) return;
    known.signs.push(sign);
    known.sure = 1 - (1 - known.sure) * (1 - SURE[sign]);
    known.text ||= text;
    found.set(address, known);
  };
  const head = page.next === '' ? '' : withoutFragment(resolve(page.next));
  if (isNear(head, here)) add(head, '', 'rel');
  const current = currentNumber(page, here);
  for (const { node, address, text } of links) {
    const said = [text, node.attributes['aria-label'] ?? '', node.attributes['title'] ?? ''];
    const isLast = said.some((words) => LAST.test(words)) || node.classes.some((name) => LAST.test(name));
    if (isLast) continue;
    if (/\bnext\b/i.test(node.attributes['rel'] ?? '')) add(address, text, 'rel');
    if (said.some((words) => NEXT.test(wordsOf(words)))) add(address, text, 'word');
    if (said.some((words) => MORE.test(wordsOf(words)))) add(address, text, 'more');
    if (ARROWS.test(text)) add(address, text, 'arrow');
    if (current !== null && text === String(current + 1)) add(address, text, 'number');
  }
  for (const { address, text } of nearestOffset(links, here)) add(address, text, 'offset');
  return [...found.values()].sort((a, b) => b.sure - a.sure).slice(0, LISTED);
}

/** The way to the next page by a rule; '' where there is none, or nothing that is sure enough. */
export function nextPage(page: Page, here: string, resolve: (link: string) => string, rule: NextRule): string {
  if (rule) {
    const chosen = linksOf(page, resolve).find(({ text, address }) => text === rule.text && isNear(address, here));
    return chosen?.address ?? '';
  }
  const [best] = nextLinks(page, here, resolve);
  return best && best.sure >= LEAST_SURE ? best.address : '';
}

/** Less sure than this is shown, and not followed unasked. */
export const LEAST_SURE = 0.6;

/** The largest number among the links of a page that name pages; 0 when none does. */
export function lastNumber(page: Page, here: string, resolve: (link: string) => string): number {
  const numbers = linksOf(page, resolve)
    .filter(({ text, node, address }) => /^\d{1,5}$/.test(text) && isInPager(node) && isNear(address, here))
    .map(({ text }) => Number(text));
  return Math.max(0, ...numbers);
}

function linksOf({ root }: Page, resolve: (link: string) => string): Link[] {
  const out: Link[] = [];
  for (const node of walk(root)) {
    const { href, 'data-href': dataHref, 'data-url': dataUrl, 'data-next': dataNext } = node.attributes;
    const link = node.tag === 'a' ? href : node.tag === 'button' ? (dataHref ?? dataUrl ?? dataNext) : undefined;
    const isOff = node.attributes['aria-disabled'] === 'true' || node.classes.includes('disabled');
    if (link === undefined || isOff || node.parent?.classes.includes('disabled') === true) continue;
    out.push({ node, address: withoutFragment(resolve(link)), text: textOf(node) });
  }
  return out;
}

const withoutFragment = (address: string) => address.replace(/#.*$/, '');
const hostOf = (address: string) => /^https?:\/\/([^/?#]+)/i.exec(address)?.[1]?.toLowerCase() ?? '';
const isNear = (address: string, here: string): boolean =>
  hostOf(address) !== '' && (here === '' || (hostOf(address) === hostOf(here) && address !== withoutFragment(here)));

/** Which page this is: as its pager marks it, else as its address says; null when nothing says it. */
function currentNumber({ root }: Page, here: string): number | null {
  for (const node of walk(root)) {
    const isMarked =
      ['page', 'true'].includes(node.attributes['aria-current'] ?? '') ||
      node.classes.some((name) => /^(current|active|selected|is-current|is-active)$/i.test(name));
    if (isMarked && node.textLength <= 6 && /^\d{1,5}$/.test(textOf(node))) return Number(textOf(node));
  }
  const said = /[?&](?:p|page|pg|seite|pagina)=(\d{1,5})(?:&|$)|\/(?:page|seite|p)\/(\d{1,5})\/?(?:\?|$)/i.exec(here);
  if (said) return Number(said[1] ?? said[2]);
  return hasPager(root) ? 1 : null;
}

/** Numbers from two on as links, one not being any: the first page. */
const hasPager = (root: PageNode): boolean =>
  [...walk(root)].some((node) => node.tag === 'a' && textOf(node) === '2' && isInPager(node));

/** A number stands in a pager when another number stands near it, and little else. */
function isInPager(node: PageNode): boolean {
  const around = node.parent?.parent ?? node.parent;
  if (!around || around.textLength > LONGEST_PAGER) return false;
  const numbers = [...walk(around)].filter((one) => one.textLength <= 5 && /^\d{1,5}$/.test(textOf(one)));
  return new Set(numbers.map(textOf)).size > 1;
}

const COUNTS = /^(p|page|pg|start|offset|from|skip|first|s|pn|seite|pagina|paged|b_start|startat)$/i;

/** Links that differ from here in one number of the query only, the one that is a little larger. */
function nearestOffset(links: readonly Link[], here: string): Link[] {
  const own = queryOf(here);
  const larger = links.flatMap((link) => {
    const other = queryOf(link.address);
    if (here === '' || other.path !== own.path) return [];
    const names = new Set([...own.values.keys(), ...other.values.keys()]);
    const different = [...names].filter((name) => own.values.get(name) !== other.values.get(name));
    const [name] = different;
    if (different.length !== 1 || name === undefined || !COUNTS.test(name)) return [];
    const [from, to] = [Number(own.values.get(name) ?? 0), Number(other.values.get(name) ?? 0)];
    return to > from ? [{ link, to }] : [];
  });
  const least = Math.min(...larger.map(({ to }) => to));
  return larger.filter(({ to }) => to === least).map(({ link }) => link);
}

function queryOf(address: string): { path: string; values: Map<string, string> } {
  const [path = '', query = ''] = withoutFragment(address).split('?', 2);
  const values = new Map(
    query
      .split('&')
      .filter(Boolean)
      .map((part) => {
        const [name = '', value = ''] = part.split('=', 2);
        return [name, value] as const;
      }),
  );
  return { path, values };
}

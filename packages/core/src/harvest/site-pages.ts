import { INLINE, isElement, textOf, walk, type Page, type PageNode } from './page';

/** What of a page is for getting about. */
const NOT_READ = new Set(['nav', 'form', 'button', 'select', 'option', 'label', 'input', 'textarea']);
const MOST_LINES = 300;
const LONGEST_LINE = 400;

/** What a page says, a line a sentence; menus and forms are left out. At most 300 lines of 400 characters. */
export function linesOf({ root }: Pick<Page, 'root'>): string[] {
  const lines: string[] = [];
  for (const block of blocksOf(root))
    for (const sentence of sentencesOf(block)) {
      lines.push(sentence.length > LONGEST_LINE ? `${sentence.slice(0, LONGEST_LINE - 1)}…` : sentence);
      if (lines.length === MOST_LINES) return lines;
    }
  return lines;
}

/** The texts of a page that stand apart, in its order. */
function blocksOf(root: PageNode): string[] {
  const blocks: string[] = [];
  let run = '';
  const end = () => {
    const text = run.replace(/\s+/g, ' ').trim();
    if (/\p{L}/u.test(text)) blocks.push(text);
    run = '';
  };
  const END = Symbol('end');
  const waiting: (PageNode | string | typeof END)[] = [root];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (next === END) end();
    else if (typeof next === 'string') run += next;
    else if (!NOT_READ.has(next.tag)) {
      const isBlock = !INLINE.has(next.tag);
      if (isBlock) {
        end();
        waiting.push(END);
      }
      for (const child of next.children.toReversed()) waiting.push(child);
    }
  }
  end();
  return blocks;
}

const segmenter = new Intl.Segmenter('en', { granularity: 'sentence' });
const sentencesOf = (text: string): string[] => [...segmenter.segment(text)].map(({ segment }) => segment.trim());

/** A link of a page: where it leads, as it is written, and what it says. */
export interface PageLink {
  href: string;
  text: string;
}

export const linksOf = ({ root }: Pick<Page, 'root'>): PageLink[] =>
  [...walk(root)]
    .filter(({ tag, attributes }) => tag === 'a' && attributes['href'] !== undefined)
    .map((node) => ({
      href: node.attributes['href']!,
      text:
        textOf(node) ||
        node.children
          .filter(isElement)
          .map(({ attributes }) => attributes['alt'] ?? '')
          .join(' '),
    }));

/** What pages are called that say what a company does, by how much they say. Common practice, no source. */
const WORTH: readonly [number, RegExp][] = [
  [
    -1,
    /log-?in|sign-?in|account|cart|basket|checkout|privacy|terms|cookie|impressum|datenschutz|mentions|\.(pdf|jpe?g|png|zip)(\s|$)/i,
  ],
  [3, /about|story|who-we|über|ueber|propos|qui-sommes|over-ons|chi-siamo|nosotros|our[- ]/i],
  [3, /product|produkt|produit|service|what-we|range|sortiment|leistung|making|process/i],
  [2, /job|career|work|vacanc|karriere|stellen|emploi/i],
  [2, /shop|store|boutique/i],
  [1, /news|blog|aktuell|actualit/i],
];

/** How much a page may say of what its company does, by its path and the words of the link to it; below 0: nothing. */
export function worthOf({ path, text }: { path: string; text: string }): number {
  const said = `${path} ${text}`;
  const found = WORTH.filter(([, words]) => words.test(said)).map(([worth]) => worth);
  return found.includes(-1) ? -1 : Math.max(0.5, ...found);
}

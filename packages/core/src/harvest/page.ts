import { parse, type DefaultTreeAdapterMap } from 'parse5';

/** An element of a page as it is read: nothing of it runs, and nothing is fetched. */
export interface PageNode {
  tag: string;
  id: string;
  classes: readonly string[];
  attributes: Readonly<Record<string, string>>;
  parent: PageNode | null;
  /** Which of its tag it is under its parent, from 1, what is not seen counted too; 0 for the only one. */
  nth: number;
  /** Elements and texts, in their order. */
  children: (PageNode | string)[];
  /** How many characters of text it holds; a picture counts as a word. */
  textLength: number;
}

const UNSEEN = new Set(['script', 'style', 'template', 'noscript', 'head', 'svg', 'iframe', 'object', 'canvas']);
const PICTURE = 8;
/** What lies deeper is left out: no page that is written for people nests like that. */
const DEEPEST = 400;
const MOST_NODES = 2_000_000;

export const isElement = (child: PageNode | string): child is PageNode => typeof child !== 'string';
export const elementsOf = (node: PageNode): PageNode[] => node.children.filter(isElement);

/** A page as it was saved. */
export interface Page {
  root: PageNode;
  /** Where it came from, as it says itself; '' when it does not. */
  address: string;
  /** What its links are relative to, itself perhaps relative to its address; '' when it does not say that. */
  base: string;
  title: string;
  /** The page that its head calls the next one; '' for none. */
  next: string;
  /** What its style elements hold. */
  styles: string;
}

/** What a browser writes over a page that it saves. */
const SAVED_FROM = /<!--\s*saved from url=\(\d+\)(\S+)\s*-->/i;

/** Reads a page by the rules of the HTML standard (parse5), without what is not seen. */
export function readPage(html: string): Page {
  const document = parse(html);
  const root = newNode('#page', [], null);
  const waiting: { from: DefaultTreeAdapterMap['parentNode']; to: PageNode; depth: number }[] = [
    { from: document, to: root, depth: 0 },
  ];
  const order: PageNode[] = [root];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { from, to, depth } = next;
    const ofTag = new Map<string, number>();
    for (const child of from.childNodes) {
      if (child.nodeName === '#text') {
        const text = (child as DefaultTreeAdapterMap['textNode']).value;
        to.children.push(text);
        to.textLength += text.trim().length;
      } else if ('tagName' in child) {
        const nth = (ofTag.get(child.tagName) ?? 0) + 1;
        ofTag.set(child.tagName, nth);
        if (UNSEEN.has(child.tagName) || isHidden(child) || depth >= DEEPEST || order.length >= MOST_NODES) continue;
        const node = newNode(child.tagName, child.attrs, to);
        node.nth = nth;
        to.children.push(node);
        order.push(node);
        waiting.push({ from: child, to: node, depth: depth + 1 });
      }
    }
    for (const node of elementsOf(to)) if (ofTag.get(node.tag) === 1) node.nth = 0;
  }
  for (let i = order.length - 1; i > 0; i--) order[i]!.parent!.textLength += order[i]!.textLength;
  const { address, ...said } = headOf(document);
  return { root, address: address || (SAVED_FROM.exec(html.slice(0, 2000))?.[1] ?? ''), ...said };
}

/** What the head of a page says of it; its address is the base, else the canonical one. */
function headOf(document: DefaultTreeAdapterMap['document']): Omit<Page, 'root'> {
  const head = document.childNodes
    .flatMap((node) => ('childNodes' in node ? node.childNodes : []))
    .find((node) => node.nodeName === 'head');
  const said = { base: '', canonical: '', next: '', title: '', styles: '' };
  for (const node of head && 'childNodes' in head ? head.childNodes : []) {
    if (!('attrs' in node)) continue;
    const attribute = (name: string) => node.attrs.find((one) => one.name === name)?.value ?? '';
    const text = () => node.childNodes.map((child) => ('value' in child ? child.value : '')).join('');
    if (node.tagName === 'base') said.base ||= attribute('href');
    if (node.tagName === 'link' && attribute('rel') === 'canonical') said.canonical = attribute('href');
    if (node.tagName === 'link' && /\bnext\b/i.test(attribute('rel'))) said.next ||= attribute('href');
    if (node.tagName === 'title') said.title ||= text().replace(/\s+/g, ' ').trim();
    if (node.tagName === 'style') said.styles += `${text()}\n`;
  }
  const address = [said.base, said.canonical].find((one) => /^https?:/i.test(one)) ?? '';
  return { address, base: said.base, title: said.title, next: said.next, styles: said.styles };
}

function newNode(tag: string, attrs: readonly { name: string; value: string }[], parent: PageNode | null): PageNode {
  const attributes: Record<string, string> = {};
  for (const { name, value } of attrs) if (name !== '__proto__') attributes[name] = value;
  return {
    tag,
    id: attributes['id'] ?? '',
    classes: (attributes['class'] ?? '').split(/\s+/).filter(Boolean),
    attributes,
    parent,
    nth: 0,
    children: [],
    textLength: tag === 'img' ? Math.max(PICTURE, (attributes['alt'] ?? '').length) : 0,
  };
}

const isHidden = ({ attrs }: DefaultTreeAdapterMap['element']): boolean =>
  attrs.some(({ name, value }) => name === 'hidden' || (name === 'style' && /display\s*:\s*none/i.test(value)));

/** Every element under a node, itself first, in the order of the page. */
export function* walk(root: PageNode): Generator<PageNode> {
  const waiting = [root];
  for (let node = waiting.pop(); node; node = waiting.pop()) {
    yield node;
    for (let i = node.children.length - 1; i >= 0; i--) {
      const child = node.children[i]!;
      if (isElement(child)) waiting.push(child);
    }
  }
}

/** The text of a node as one reads it: spaces as one, blocks and line breaks apart. */
export function textOf(node: PageNode | string): string {
  if (typeof node === 'string') return node.replace(/\s+/g, ' ').trim();
  const parts: string[] = [];
  const waiting: (PageNode | string)[] = [node];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (typeof next === 'string') parts.push(next);
    else {
      if (!INLINE.has(next.tag)) parts.push(' ');
      for (let i = next.children.length - 1; i >= 0; i--) waiting.push(next.children[i]!);
    }
  }
  return parts.join('').replace(/\s+/g, ' ').trim();
}

/** Columns that a cell goes over. */
export const spanOf = ({ attributes }: PageNode): number =>
  Math.max(1, Math.min(1000, Number(attributes['colspan']) || 1));

/** A class that says what an element is, not which one it is. */
export const isLasting = (name: string): boolean =>
  !/^(odd|even|first|last|active|current|selected|open|new)$|\d/i.test(name) || name.startsWith('col');

/** Elements that stand in a line of text. */
export const INLINE: ReadonlySet<string> = new Set(
  'a abbr b bdi bdo cite code data dfn em font i kbd mark q s samp small span strong sub sup time tt u var wbr'.split(
    ' ',
  ),
);

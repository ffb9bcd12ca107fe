import { elementsOf, type PageNode } from './page';
import type { RecordSet } from './record-sets';

/** A CSS selector of the elements that begin the records of a set: from the nearest element with an id, or the page, down. */
export function cssPath({ records }: RecordSet): string {
  const firsts = records.map((nodes) => nodes[0]!);
  const parents = new Set(firsts.map(({ parent }) => parent!));
  const above = parents.size === 1 ? exactPath([...parents][0]!) : kindPath([...parents]);
  const own = firsts[0]!;
  const siblings = [...parents].flatMap(elementsOf).filter(({ tag }) => tag === own.tag);
  return `${above}${own.tag}${siblings.length === firsts.length ? '' : difference(firsts, siblings)}`;
}

const escape = (name: string) => name.replace(/[^\w-]/g, (c) => `\\${c}`).replace(/^(\d)/, '\\3$1 ');

function exactPath(node: PageNode): string {
  const parts: string[] = [];
  for (let at: PageNode | null = node; at?.parent; at = at.parent) {
    if (at.id !== '') {
      parts.unshift(`#${escape(at.id)}`);
      break;
    }
    parts.unshift(at.nth === 0 ? at.tag : `${at.tag}:nth-of-type(${at.nth})`);
  }
  return parts.map((part) => `${part} > `).join('');
}

/** Of several parents: the way from what holds them all, by the tags and classes that they have in common. */
function kindPath(parents: readonly PageNode[]): string {
  const ways = parents.map(wayTo);
  const shortest = Math.min(...ways.map(({ length }) => length));
  let common = 0;
  while (common < shortest && ways.every((way) => way[common] === ways[0]![common])) common++;
  const above = exactPath(ways[0]![common - 1]!);
  const isLevel = ways.every(({ length }) => length === shortest);
  const levels = isLevel ? ways[0]!.slice(common).map((_, i) => ways.map((way) => way[common + i]!)) : [parents];
  const steps = levels.map((nodes) => `${inCommon(nodes)} > `).join('');
  return isLevel ? above + steps : `${above.replace(/ > $/, ' ')}${steps}`;
}

/** From the top of the page down to a node. */
function wayTo(node: PageNode): PageNode[] {
  const way: PageNode[] = [];
  for (let at: PageNode | null = node; at; at = at.parent) way.unshift(at);
  return way;
}

function inCommon(nodes: readonly PageNode[]): string {
  const [{ tag, classes }] = nodes as [PageNode];
  const shared = classes.filter((name) => nodes.every((one) => one.classes.includes(name)));
  return `${nodes.every((one) => one.tag === tag) ? tag : '*'}${shared.map((name) => `.${escape(name)}`).join('')}`;
}

/** What tells the records from the others under their parents. */
function difference(firsts: readonly PageNode[], siblings: readonly PageNode[]): string {
  const chosen = new Set(firsts);
  const others = siblings.filter((one) => !chosen.has(one));
  const shared = firsts[0]!.classes.filter((name) => firsts.every(({ classes }) => classes.includes(name)));
  const telling = shared.find((name) => others.every(({ classes }) => !classes.includes(name)));
  if (telling) return `.${escape(telling)}`;
  if (firsts[0]!.tag === 'tr') {
    const cells = elementsOf(firsts[0]!);
    return `:has(> ${cells[0]?.tag ?? 'td'}:nth-last-child(${cells.length}):first-child)`;
  }
  return shared.map((name) => `.${escape(name)}`).join('');
}

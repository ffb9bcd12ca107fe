import { elementsOf, isLasting, spanOf, walk, type Page, type PageNode } from './page';
import { mostCommon } from '../text/most-common';

/** Records that repeat on a page. */
export interface RecordSet {
  /** Each record: one element, or several that stand next to each other. */
  records: PageNode[][];
  /** How good it is as a set of records; larger is better. */
  score: number;
}

const LEAST_RECORDS = 3;
const MOST_SETS = 30;
/** Of the gaps between the elements that begin a record, so many have to be alike. */
const ALIKE = 0.8;
/** Elements are of one kind when so much of what they hold is alike. */
const KIN = 0.55;
/** Parts of records, never records. */
const PARTS = new Set(['td', 'th', 'col', 'colgroup', 'thead', 'tbody', 'tfoot', 'br', 'wbr', 'hr']);
/** Containers whose children are records by their nature, however they look inside. */
const BY_TAG = new Set(['li', 'dt', 'dd', 'option', 'tr']);
const DEPTH = 4;
/** Kinds that children of one parent are compared with. */
const MOST_KINDS = 200;

/**
 * Finds the sets of repeated records of a page, best first: elements under one parent that are alike inside, single or several in a row
 * (the generalized nodes of Liu, Grossman and Zhai, Mining Data Records in Web Pages, KDD 2003), and the same kind under parents of the
 * same path (cards in rows). Of two sets about the same records the outer one stays.
 */
export function findRecordSets({ root: page }: Page): RecordSet[] {
  const keyOf = keys();
  const kinds = new Map<string, PageNode[][]>();
  for (const parent of walk(page)) {
    const children = elementsOf(parent);
    if (children.length === 0) continue;
    for (const [label, members] of kin(children)) {
      const records = runsOf(children, members);
      if (records === null) continue;
      const key = `${keyOf(parent)}>${label}`;
      const known = kinds.get(key);
      if (known) known.push(...records);
      else kinds.set(key, records);
    }
  }
  const sets = [...kinds.values(), ...anywhere([...kinds.values()])]
    .filter((records) => records.length >= LEAST_RECORDS)
    .map((records) => ({ records, score: scoreOf(records, page.textLength) }))
    .filter(({ score }) => score > 0)
    .sort((a, b) => b.score - a.score);
  return partsLast(withoutDoubles(sets));
}

/** Lines of text inside the records of a better set are parts of these: they come behind all others. */
function partsLast(sets: readonly RecordSet[]): RecordSet[] {
  const better = new Set<PageNode>();
  const [whole, parts]: [RecordSet[], RecordSet[]] = [[], []];
  for (const set of sets) {
    const isPart = set.records.every(
      ([first]) => !BY_TAG.has(first!.tag) && elementsOf(first!).length === 0 && isInside(first!, better),
    );
    (isPart ? parts : whole).push(set);
    for (const nodes of set.records) for (const node of nodes) better.add(node);
  }
  return [...whole, ...parts];
}

function isInside(node: PageNode, others: ReadonlySet<PageNode>): boolean {
  for (let at = node.parent; at; at = at.parent) if (others.has(at)) return true;
  return false;
}

/** Records of one class under parents of one class, wherever on the page: lists within the records of a list. */
function anywhere(kinds: readonly PageNode[][][]): PageNode[][][] {
  const byClass = new Map<string, PageNode[][][]>();
  for (const records of kinds) {
    const [{ tag, classes, parent }] = records[0] as [PageNode];
    if (classes.length === 0) continue;
    const key = `${parent!.tag}.${parent!.classes.join('.')}>${tag}.${classes.join('.')}`;
    const known = byClass.get(key);
    if (known) known.push(records);
    else byClass.set(key, [records]);
  }
  return [...byClass.values()].filter(({ length }) => length > 1).map((all) => all.flat());
}

/** Where an element stands, by tags and classes; a table stands for itself. */
function keys(): (node: PageNode) => string {
  const known = new Map<PageNode, string>();
  let tables = 0;
  return function keyOf(node: PageNode): string {
    let key = known.get(node);
    if (key === undefined) {
      const own = `${node.tag}.${node.classes.filter(isLasting).join('.')}`;
      const above = node.parent ? keyOf(node.parent) : '';
      key = `${above}>${own}${node.tag === 'table' ? `#${++tables}` : ''}`;
      known.set(node, key);
    }
    return key;
  };
}

/** The children in groups that are alike inside, by a name that is the same under other parents. */
function kin(children: readonly PageNode[]): Map<string, PageNode[]> {
  const groups: { label: string; shape: ReadonlySet<string>; members: PageNode[] }[] = [];
  const byShape = new Map<string, (typeof groups)[number]>();
  for (const child of children) {
    if (PARTS.has(child.tag)) continue;
    const label = labelOf(child);
    const isByTag = BY_TAG.has(child.tag);
    const shape = isByTag ? EMPTY : shapeOf(child);
    const exact = isByTag ? label : `${label} ${[...shape].sort().join(' ')}`;
    let group = byShape.get(exact);
    group ??=
      isByTag || groups.length > MOST_KINDS
        ? undefined
        : groups.find((one) => one.label === label && likeness(one.shape, shape) >= KIN);
    if (!group) {
      group = { label, shape, members: [] };
      groups.push(group);
    }
    byShape.set(exact, group);
    group.members.push(child);
  }
  const out = new Map<string, PageNode[]>();
  for (const { label, members } of groups) {
    const name = out.has(label) ? `${label}~${out.size}` : label;
    out.set(name, members);
  }
  return out;
}

const EMPTY: ReadonlySet<string> = new Set();

/** Rows of a table by their width, and whether a cell goes over most of it; all else by tag. */
function labelOf(node: PageNode): string {
  if (node.tag !== 'tr') return node.tag;
  const cells = elementsOf(node);
  const isHeader = cells.every(({ tag }) => tag === 'th');
  const width = cells.reduce((sum, cell) => sum + spanOf(cell), 0);
  return `tr:${isHeader ? 'th' : width}${cells.length > width / 2 ? '' : `:${cells.length}`}`;
}

/** What an element holds: the paths of tags in it, a few levels deep. */
function shapeOf(node: PageNode): ReadonlySet<string> {
  const out = new Set<string>();
  const go = (at: PageNode, path: string, depth: number) => {
    for (const child of elementsOf(at)) {
      const here = `${path}/${child.tag}`;
      out.add(here);
      if (depth < DEPTH) go(child, here, depth + 1);
    }
  };
  go(node, '', 1);
  return out;
}

/** Jaccard's index; what holds nothing is like what holds nothing. */
function likeness(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  if (a.size === 0 && b.size === 0) return 1;
  let both = 0;
  for (const one of a) if (b.has(one)) both++;
  return both / (a.size + b.size - both);
}

/**
 * The records that some children begin: alone, or each with what follows up to the next, where that is nearly always the same. Null
 * where they only follow what begins a record.
 */
function runsOf(children: readonly PageNode[], members: readonly PageNode[]): PageNode[][] | null {
  const starts = new Set(members);
  const at = children.flatMap((child, i) => (starts.has(child) ? [i] : []));
  const gaps = at.map((from, i) => children.slice(from + 1, at[i + 1] ?? children.length));
  const between = gaps.slice(0, -1);
  const followed = between.filter((gap) => gap.length > 0);
  if (between.length > 0 && followed.length >= between.length * ALIKE) {
    const usual = mostCommon(followed.map((gap) => labelOf(gap[0]!)));
    const alike = followed.filter((gap) => labelOf(gap[0]!) === usual).length;
    if (alike >= followed.length * ALIKE) {
      // Who stands behind another kind from the start only follows it.
      if (at[0]! > 0 && labelOf(children[at[0]! - 1]!) === usual) return null;
      const longest = Math.max(1, mostCommon(followed.map(({ length }) => length))! * 3);
      return at.map((from, i) => [children[from]!, ...gaps[i]!.slice(0, longest)]);
    }
  }
  if (between.length === 0 && members[0]!.tag === 'dt') return [[members[0]!, ...gaps[0]!]];
  return members.map((member) => [member]);
}

const NAVIGATION = new Set(['nav', 'header', 'footer', 'aside', 'thead', 'tfoot', 'select', 'form']);
const NAVIGATION_WORDS = /\b(nav|navbar|menu|sidebar|breadcrumb|pagination|pager|footer|toc|tabs?|dropdown)\b/i;

const isAside = (node: PageNode | null): boolean => {
  // What stands at the body says how the page is laid out.
  for (let at = node; at && at.tag !== 'body'; at = at.parent)
    if (
      NAVIGATION.has(at.tag) ||
      NAVIGATION_WORDS.test(`${at.id} ${at.classes.join(' ')} ${at.attributes['role'] ?? ''}`)
    )
      return true;
  return false;
};

const LOOKED_AT = 400;
/** What a set counts that stands in a menu or beside the page. */
const ASIDE = 0.1;

/** How much a set looks like the records that somebody came for. */
function scoreOf(records: readonly PageNode[][], pageLength: number): number {
  const looked =
    records.length <= LOOKED_AT ? records : records.filter((_, i) => i % Math.ceil(records.length / LOOKED_AT) === 0);
  const lengths = records.map((nodes) => nodes.reduce((sum, { textLength }) => sum + textLength, 0));
  const text = lengths.reduce((sum, length) => sum + length, 0);
  if (text === 0) return 0;
  const shapes = looked.map(
    (nodes) => new Set(nodes.flatMap((node) => [node.tag, ...[...shapeOf(node)].map((path) => node.tag + path)])),
  );
  const counts = new Map<string, number>();
  for (const shape of shapes) for (const path of shape) counts.set(path, (counts.get(path) ?? 0) + 1);
  const usual = new Set([...counts].filter(([, n]) => n >= shapes.length / 2).map(([path]) => path));
  const regular = shapes.reduce((sum, shape) => sum + likeness(usual, shape), 0) / shapes.length;
  const filled = lengths.filter((length) => length > 0).length / lengths.length;
  // Somebody's records are short beside the page; sections of it are not.
  const each = text / records.length;
  const tooLong = each > 1500 ? 1500 / each : 1;
  const fields = Math.min(6, usual.size);
  const cover = Math.min(1, text / Math.max(1, pageLength));
  return (
    Math.log2(1 + records.length) *
    regular *
    filled *
    tooLong *
    Math.sqrt(cover) *
    (0.6 + 0.4 * (fields / 6)) *
    (isAside(records[0]![0]!.parent) ? ASIDE : 1)
  );
}

/** Sets about records that a better set has already are dropped: the same count inside or outside of them. */
function withoutDoubles(sets: readonly RecordSet[]): RecordSet[] {
  const out: RecordSet[] = [];
  for (const set of sets) {
    if (out.length === MOST_SETS) break;
    const isDouble = out.some((better) => pairsUp(set.records, better.records) || pairsUp(better.records, set.records));
    if (!isDouble) out.push(set);
  }
  return out;
}

/** True when nearly every inner record lies in an outer one of its own. */
function pairsUp(inner: readonly PageNode[][], outer: readonly PageNode[][]): boolean {
  const [few, many] = [Math.min(inner.length, outer.length), Math.max(inner.length, outer.length)];
  if (few < many * ALIKE) return false;
  const of = new Map<PageNode, number>();
  outer.forEach((nodes, i) => nodes.forEach((node) => of.set(node, i)));
  const met = new Set<number>();
  for (const nodes of inner)
    for (let at: PageNode | null = nodes[0]!; at; at = at.parent) {
      const i = of.get(at);
      if (i === undefined) continue;
      met.add(i);
      break;
    }
  return met.size >= inner.length * ALIKE;
}

import { elementsOf, INLINE, isElement, isLasting, spanOf, textOf, walk, type PageNode } from './page';
import type { RecordSet } from './record-sets';

/** A field as later pages are read by it: where it stands in a record, and what it is called. */
export interface FieldPlace {
  key: string;
  name: string;
}

/** One field of the records of a set. */
export interface HarvestField extends FieldPlace {
  /** For each record; '' where it lacks the field. */
  values: string[];
}

type Values = Map<string, string>;

/** Columns that so few records have, of many columns, go together into one. */
const RARE = 0.05;
const IS_LINK = /@(link|image)(~\d+)?$/;
const LONGEST_LABELLED = 160;
/** So many of the records have a label, for it to be one. */
const USUAL = 0.15;
const MANY_FIELDS = 14;

/**
 * What the records of a set hold, as fields: cells of a table by their column, all else by where it stands in the record; targets of
 * links, sources and texts of images beside them. Nothing that is seen in a record is left out.
 *
 * @param resolve makes a link whole, which may be relative to the page
 */
export function fieldsOf({ records }: RecordSet, resolve: (link: string) => string = (link) => link): HarvestField[] {
  const [{ tag }] = records[0] as [PageNode];
  const headings = tag === 'tr' ? headingsOf(records[0]![0]!) : [];
  const usual = usualLabels(records.map((nodes) => valuesOf(nodes, null)));
  const rows = records.map((nodes) => valuesOf(nodes, usual));
  const keys = new Map<string, number>();
  for (const row of rows) for (const key of row.keys()) keys.set(key, (keys.get(key) ?? 0) + 1);
  const order = orderOf(rows);
  const isRare = (key: string) => keys.size > MANY_FIELDS && keys.get(key)! < rows.length * RARE;
  const [kept, rare] = [order.filter((key) => !isRare(key)), order.filter(isRare)];
  const fields = kept.map((key) => {
    const values = rows.map((row) => row.get(key) ?? '');
    return { key, name: nameOf(key, headings), values: IS_LINK.test(key) ? values.map(resolve) : values };
  });
  if (rare.length > 0) fields.push({ ...REST, values: rows.map((row) => restOf(row, rare)) });
  // What says the same in every record says nothing of any: last, and not away.
  const says = ({ values }: HarvestField) => rows.length < 3 || new Set(values).size > 1;
  return unique([...fields.filter(says), ...fields.filter((field) => !says(field))]);
}

/** What stands in none of the other fields. */
export const REST: FieldPlace = { key: 'rest', name: 'Other' };
const restOf = (row: Values, keys: readonly string[]) => keys.flatMap((key) => row.get(key) || []).join(' | ');

/**
 * The records of a set on another page, in the fields of the first.
 *
 * @param places what has no place in them goes to `REST`, which is one of them
 * @returns the cells of each record
 */
export function cellsAs(
  { records }: RecordSet,
  places: readonly FieldPlace[],
  resolve: (link: string) => string,
): string[][] {
  const known = new Set(places.map(({ key }) => key));
  const labels = new Set(places.flatMap(({ key }) => labelOf(key) ?? []));
  return records.map((nodes) => {
    const values = valuesOf(nodes, labels);
    const strange = [...values.keys()].filter((key) => !known.has(key));
    return places.map(({ key }) => {
      if (key === REST.key) return restOf(values, strange);
      const value = values.get(key) ?? '';
      return IS_LINK.test(key) && value !== '' ? resolve(value) : value;
    });
  });
}

/** The places of the values of each record, for looking for a set again. */
export const placesIn = ({ records }: RecordSet, places: readonly FieldPlace[]): ReadonlySet<string>[] => {
  const labels = new Set(places.flatMap(({ key }) => labelOf(key) ?? []));
  return records.map((nodes) => new Set(valuesOf(nodes, labels).keys()));
};

/** The fields in the order in which the records have them. */
function orderOf(rows: readonly Values[]): string[] {
  const places = new Map<string, { sum: number; n: number }>();
  for (const row of rows)
    [...row.keys()].forEach((key, i) => {
      const place = places.get(key) ?? { sum: 0, n: 0 };
      places.set(key, { sum: place.sum + i / row.size, n: place.n + 1 });
    });
  return [...places].sort(([, a], [, b]) => a.sum / a.n - b.sum / b.n).map(([key]) => key);
}

/** Labels that many of the records have; others are a sentence that happens to have a colon. */
function usualLabels(rows: readonly Values[]): ReadonlySet<string> {
  const counts = new Map<string, number>();
  for (const row of rows)
    for (const label of new Set([...row.keys()].flatMap((key) => labelOf(key) ?? [])))
      counts.set(label, (counts.get(label) ?? 0) + 1);
  return new Set([...counts].filter(([, n]) => n >= Math.max(2, rows.length * USUAL)).map(([label]) => label));
}

const labelOf = (key: string): string | undefined => /:([^@~]+)(~\d+)?$/.exec(key)?.[1];

/** @param labels that count as such; null: any */
function valuesOf(nodes: readonly PageNode[], labels: ReadonlySet<string> | null): Values {
  const out: Values = new Map();
  const put = (place: string, text: string) => {
    if (text === '') return;
    // What says itself what it is, is that wherever it stands.
    const mayBe = text.length <= LONGEST_LABELLED && !/@|^cell/.test(place);
    const [, label, said] = (mayBe && LABEL.exec(text)) || [];
    const isLabel = label !== undefined && (labels === null || labels.has(label));
    const [key, value] = isLabel ? [`${place}:${label}`, said!] : [place, text];
    let free = key;
    for (let n = 2; out.has(free); n++) free = `${key}~${n}`;
    out.set(free, value);
  };
  for (const [i, node] of nodes.entries()) {
    const path = i === 0 ? '' : `+${stepOf(node)}`;
    if (node.tag === 'tr') cellsOf(node, path, put);
    else read(node, path, put);
  }
  return out;
}

type Put = (key: string, value: string) => void;

function cellsOf(row: PageNode, path: string, put: Put) {
  let column = 0;
  for (const cell of elementsOf(row)) {
    const key = `${path}cell ${column}`;
    put(key, textOf(cell));
    links(cell, key, put);
    column += spanOf(cell);
  }
}

/** Words, or figures: not only what parts them. */
const SAYS = /[\p{L}\p{N}]/u;

function read(node: PageNode, path: string, put: Put) {
  const texts = node.children.filter((child): child is string => !isElement(child));
  const elements = elementsOf(node);
  const ownText = texts.some((text) => SAYS.test(text));
  if (ownText || elements.every(({ tag }) => tag === 'br')) {
    for (const segment of segments(node)) put(path, segment);
    links(node, path, put);
    return;
  }
  for (const { kind, value } of linkOf(node)) put(`${path}@${kind}`, value);
  for (const child of elements) read(child, `${path}/${stepOf(child)}`, put);
}

/** Signs that stand between two fields on one line. */
const BETWEEN = / [·•|] /;

/** A text that stands in lines, by its line breaks and the blocks in it. */
function segments(node: PageNode): string[] {
  const lines: string[] = [''];
  const go = (at: PageNode) => {
    for (const child of at.children) {
      if (!isElement(child)) lines[lines.length - 1] += child;
      else if (child.tag === 'br') lines.push('');
      else if (INLINE.has(child.tag)) go(child);
      else {
        lines.push('');
        go(child);
        lines.push('');
      }
    }
  };
  go(node);
  return lines
    .flatMap((line) => line.replace(/\s+/g, ' ').split(BETWEEN))
    .map((line) => line.trim())
    .filter((line) => SAYS.test(line));
}

/** Links and images in what was read as text. */
function links(node: PageNode, path: string, put: Put) {
  const all = [...walk(node)].flatMap((at) => linkOf(at));
  for (const kind of KINDS) {
    const [first, ...more] = all.filter((one) => one.kind === kind).map(({ value }) => value);
    if (first !== undefined) put(`${path}@${kind}`, first);
    if (more.length > 0) put(`${path}@more ${kind}s`, more.join(' '));
  }
}

const KINDS = ['link', 'image text', 'image'] as const;

function linkOf({ tag, attributes }: PageNode): { kind: (typeof KINDS)[number]; value: string }[] {
  const found =
    tag === 'a'
      ? [{ kind: 'link' as const, value: attributes['href'] ?? '' }]
      : tag === 'img'
        ? [
            { kind: 'image text' as const, value: (attributes['alt'] ?? '').trim() },
            { kind: 'image' as const, value: attributes['src'] ?? '' },
          ]
        : [];
  return found.filter(({ value }) => value !== '');
}

const stepOf = ({ tag, classes }: PageNode): string => {
  const own = classes.find(isLasting);
  return own ? `${tag}.${own}` : tag;
};

/** The headings over the rows of a table, by column. */
function headingsOf(row: PageNode): string[] {
  let table: PageNode | null = row;
  while (table && table.tag !== 'table') table = table.parent;
  if (!table) return [];
  const rows = elementsOf(table).flatMap((part) => (part.tag === 'tr' ? [part] : elementsOf(part)));
  const above = rows
    .slice(0, rows.indexOf(row))
    .filter((one) => one.tag === 'tr' && elementsOf(one).some(({ tag }) => tag === 'th'));
  const header = above.at(-1);
  if (!header) return [];
  return elementsOf(header).flatMap((cell) => Array.from({ length: spanOf(cell) }, () => textOf(cell)));
}

/** What a field is called: by its heading, the class of what holds it, or what it is. */
function nameOf(key: string, headings: readonly string[]): string {
  const label = labelOf(key);
  if (label !== undefined) return label;
  const [place = '', kind] = key.replace(/~\d+$/, '').split('@');
  const cell = /^cell (\d+)$/.exec(place);
  const named = cell
    ? headings[Number(cell[1])] || `Column ${Number(cell[1]) + 1}`
    : wordsOfClass(/\.([^./+]+)$/.exec(place)?.[1] ?? '');
  return capital(kind === undefined ? named || 'Text' : `${named} ${kind}`.trim());
}

/** Classes that say how something looks say nothing of what it is. */
const LOOKS =
  /^(col|row|text|font|btn|badge|label|lead|small|muted|mb|mt|ml|mr|pt|pb|p|m|d|h|w|fa|fas|icon|img|card|media|list|item|body|content|inner|wrapper|container|clearfix|pull|float|left|right|center|title-?\w*-?wrap)\b/i;
const wordsOfClass = (name: string): string => {
  if (name === '' || LOOKS.test(name)) return '';
  return name
    .replace(/[-_]+/g, ' ')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .trim();
};
const capital = (words: string) => words.slice(0, 1).toUpperCase() + words.slice(1);

/** A short text that begins with what it is: `Phone: 0113 496 0000`. */
const LABEL = /^([\p{L}][\p{L}\p{N} #./-]{1,24}?)\s*:\s+(\S.*)$/u;

function unique(fields: readonly HarvestField[]): HarvestField[] {
  const seen = new Map<string, number>();
  return fields.map((field) => {
    const n = (seen.get(field.name) ?? 0) + 1;
    seen.set(field.name, n);
    return n === 1 ? field : { ...field, name: `${field.name} ${n}` };
  });
}

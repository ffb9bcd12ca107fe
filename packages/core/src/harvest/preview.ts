import type { HarvestField } from './fields';
import { isElement, walk, type Page, type PageNode } from './page';
import type { RecordSet } from './record-sets';

/** What is drawn on a page that is shown: which set is outlined, its fields tinted, which link is followed. */
export interface Marked {
  set: RecordSet;
  fields: readonly HarvestField[];
  /** The address of the link that is followed; '' for none. */
  next: string;
  resolve: (link: string) => string;
}

/** More is not shown; the rows are, all of them. */
const MOST_NODES = 20_000;
const TINTS = 8;

const AS_IT_IS = new Set(
  (
    'a abbr address article aside b bdi bdo big blockquote br caption center cite code col colgroup data dd del dfn dir div dl dt em ' +
    'figcaption figure font footer h1 h2 h3 h4 h5 h6 header hgroup hr i ins kbd li main mark menu nav ol p pre q rp rt ruby s samp ' +
    'section small span strike strong sub sup table tbody td tfoot th thead time tr tt u ul var wbr'
  ).split(' '),
);
const KEPT_ATTRIBUTES = new Set(['class', 'id', 'style', 'colspan', 'rowspan', 'dir', 'lang', 'align', 'width']);
const VOID = new Set(['br', 'hr', 'wbr', 'col']);

/** Our marks on a page: an outline, a number at the corner, tints; the same as the columns of the rows have. */
const MARKS = `
  html { scroll-snap-type: y proximity; background: #fff; color: #33322f; font: 13px/1.5 system-ui, sans-serif; }
  body { margin: 0; padding: 12px 16px; }
  [data-record] { outline: 1.5px solid #d9971e; outline-offset: 1px; position: relative; scroll-margin-top: 12px; }
  #records { scroll-snap-align: start; }
  [data-number]::before { content: attr(data-number); position: absolute; right: 0; top: 0; background: #d9971e; color: #2b1c00;
    font: 600 9.5px/13px system-ui, sans-serif; padding: 0 4px; border-radius: 0 0 0 3px; z-index: 1; }
  td[data-number], th[data-number] { position: relative; }
  [data-next] { outline: 1.5px dashed #1d5b50; outline-offset: 3px; border-radius: 2px; }
  [data-next]::after { content: 'followed'; margin-left: 8px; padding: 0 6px; background: #1d5b50; color: #fff; border-radius: 3px;
    font: 600 10.5px/15px system-ui, sans-serif; display: inline-block; }
  [data-picture] { display: inline-block; border: 1px dashed #bdb59c; border-radius: 3px; padding: 0 5px; color: #77756c; font-size: 11px; }
  [data-control] { display: inline-block; border: 1px solid #d8d2c2; border-radius: 3px; padding: 0 6px; color: #77756c; }
  mark { color: inherit; border-radius: 2px; padding: 0 1px; }
  ${['#cfe1d9', '#e4e9cf', '#f0e4bf', '#dce5ee', '#ebdde6', '#dde0d8', '#e9dccb', '#d5e3e3']
    .map((tint, i) => `mark[data-field="${i}"] { background: ${tint}; }`)
    .join(' ')}
`;

/**
 * A page as text that is safe to show: no script, picture, form or frame, no address that anything could be fetched from; what its own
 * style elements say is kept. It still has to be shown with a policy that lets nothing run and nothing load.
 */
export function previewOf(page: Page, { set, fields, next, resolve }: Marked): string {
  const number = new Map<PageNode, { record: number; isFirst: boolean }>();
  set.records.forEach((nodes, record) => nodes.forEach((node, i) => number.set(node, { record, isFirst: i === 0 })));
  const out: string[] = [];
  const followed = linkTo(page, next, resolve);
  let nodes = 0;
  const write = (node: PageNode, within: number | null) => {
    if (++nodes > MOST_NODES) return;
    const own = number.get(node);
    const record = own?.record ?? within;
    const attributes = attributesOf(node, own?.isFirst === true && own.record === 0 ? 'records' : node.id);
    if (own) attributes.push(`data-record="${own.record + 1}"`);
    const badge = own?.isFirst && node.tag !== 'tr' ? own.record : badgeOfRow(node, number);
    if (badge !== null) attributes.push(`data-number="${badge + 1}"`);
    if (node === followed) attributes.push('data-next');
    if (node.tag === 'img') {
      const alt = node.attributes['alt']?.trim();
      out.push(`<span data-picture>${escaped(alt || 'picture')}</span>`);
      return;
    }
    const isControl = CONTROLS.has(node.tag);
    if (isControl) attributes.push('data-control');
    const tag = isControl ? 'span' : AS_IT_IS.has(node.tag) ? node.tag : 'div';
    out.push(`<${tag}${attributes.map((one) => ` ${one}`).join('')}>`);
    if (VOID.has(tag)) return;
    for (const child of node.children)
      if (isElement(child)) write(child, record);
      else out.push(record === null ? escaped(child) : tinted(child, fields, record));
    out.push(`</${tag}>`);
  };
  for (const child of page.root.children)
    if (isElement(child)) for (const inner of child.children) if (isElement(inner)) write(inner, null);
  const cut = nodes > MOST_NODES ? '<p>The page goes on; its rows are all there.</p>' : '';
  return `<!doctype html><html><head><meta charset="utf-8"><style>${withoutAddresses(page.styles)}</style><style>${MARKS}</style></head><body>${out.join('')}${cut}</body></html>`;
}

const CONTROLS = new Set(['input', 'button', 'select', 'textarea', 'option']);

/** The link to an address, of several the one that says most. */
function linkTo({ root }: Page, address: string, resolve: (link: string) => string): PageNode | undefined {
  if (address === '') return undefined;
  return [...walk(root)]
    .filter(({ tag, attributes: { href } }) => tag === 'a' && href && resolve(href).replace(/#.*$/, '') === address)
    .sort((a, b) => b.textLength - a.textLength)[0];
}

/** A row of a table shows its number in its first cell. */
function badgeOfRow(
  node: PageNode,
  number: ReadonlyMap<PageNode, { record: number; isFirst: boolean }>,
): number | null {
  const { parent } = node;
  if (parent?.tag !== 'tr' || parent.children.find(isElement) !== node) return null;
  const row = number.get(parent);
  return row?.isFirst ? row.record : null;
}

const attributesOf = ({ attributes, tag }: PageNode, id: string): string[] => {
  const style = withoutAddresses(attributes['style'] ?? (tag === 'a' ? 'text-decoration: underline' : ''));
  return Object.entries({ ...attributes, id, style }).flatMap(([name, value]) =>
    KEPT_ATTRIBUTES.has(name) && value !== '' ? [`${name}="${escaped(value)}"`] : [],
  );
};

/** Styles without what would fetch, and without what would end the element that they stand in. */
const withoutAddresses = (styles: string): string =>
  styles
    .replace(/@import[^;]*;?/gi, '')
    .split(/url\s*\(/i)
    .map((part, i) => (i === 0 ? part : `none${part.slice(endOfAddress(part))}`))
    .join('')
    .replace(/position\s*:\s*fixed/gi, 'position: static')
    .replace(/<\//g, '<\\/');

/** Behind the bracket that closes an address; the whole where none does. */
const endOfAddress = (part: string): number => (part.includes(')') ? part.indexOf(')') + 1 : part.length);

const ESCAPES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escaped = (text: string) => text.replace(/[&<>"]/g, (c) => ESCAPES[c]!);

/** The text of a record, what is in a field tinted as that. */
function tinted(text: string, fields: readonly HarvestField[], record: number): string {
  return text
    .split(/( [·•|] )/)
    .map((part) => {
      const said = part.replace(/\s+/g, ' ').trim();
      if (said.length < 2 && !/[\p{L}\p{N}]/u.test(said)) return escaped(part);
      const field = fieldOf(said, fields, record);
      return field < 0 ? escaped(part) : `<mark data-field="${field % TINTS}">${escaped(part)}</mark>`;
    })
    .join('');
}

/** The field that a text of a record is in: which it is, else of which it is a part. */
function fieldOf(said: string, fields: readonly HarvestField[], record: number): number {
  const values = fields.map((field) => field.values[record] ?? '');
  const exact = values.indexOf(said);
  return exact >= 0
    ? exact
    : values.findIndex((value) => value !== '' && (said.endsWith(value) || value.includes(said)));
}

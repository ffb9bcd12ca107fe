import type { Column, Derived, SplitBy } from '../model/target';
import { isTitleWord } from '../words/titles/titles';
import { parseName } from './person-name';

const MOST_PARTS = 6;

/** The parts of a cell, as it is split: at most six, the last with all that is left. */
export function partsOf(cell: string, by: SplitBy): string[] {
  const text = cell.trim();
  if (text === '') return [];
  switch (by.how) {
    case 'separator':
      return by.text === '' ? [text] : limited(text.split(by.text), by.text);
    case 'pattern':
      return bySlots(text, by.text);
    case 'name': {
      const { firstName, middleName, lastName } = parseName(text);
      return [firstName, middleName, lastName];
    }
    case 'firm-title':
      return firmAndTitle(text);
    case 'town-county':
      return limited(text.split(/,\s*/), ', ');
  }
}

function limited(parts: readonly string[], between: string): string[] {
  const trimmed = parts.map((part) => part.trim());
  if (trimmed.length <= MOST_PARTS) return trimmed;
  return [...trimmed.slice(0, MOST_PARTS - 1), trimmed.slice(MOST_PARTS - 1).join(between)];
}

/** Each star of a pattern is a part: `* (*)` makes two of `Brackenfold (Wells)`. What does not fit stays whole in the first. */
function bySlots(text: string, pattern: string): string[] {
  const [before = '', ...between] = pattern.split('*');
  if (between.length === 0 || !text.startsWith(before)) return [text];
  const parts: string[] = [];
  let at = before.length;
  for (const [i, literal] of between.entries()) {
    const isLast = i === between.length - 1;
    const end = isLast && literal === '' ? text.length : isLast ? text.lastIndexOf(literal) : text.indexOf(literal, at);
    if (end < at) return [text];
    parts.push(text.slice(at, end).trim());
    at = end + literal.length;
  }
  return parts.slice(0, MOST_PARTS);
}

/** A firm and a title in one cell, in either order: `Brackenfold / Owner`, `Head of Quality, Edale`. */
function firmAndTitle(text: string): string[] {
  const found = /\s*[/|–—]\s*|\s+-\s+|,\s+|\s+(?:at|bei|chez)\s+/.exec(text);
  if (!found) return isTitle(text) ? ['', text] : [text, ''];
  const [a, b] = [text.slice(0, found.index).trim(), text.slice(found.index + found[0].length).trim()];
  return isTitle(a) && !isTitle(b) ? [b, a] : [a, b];
}

const isTitle = (text: string): boolean => (text.toLowerCase().match(/[\p{L}'’-]+/gu) ?? []).some(isTitleWord);

/** The value of a column that is made of others. */
export function derivedValue(cells: readonly string[], from: Derived): string {
  if (from.kind === 'part') return partsOf(cells[from.column] ?? '', from.by)[from.part] ?? '';
  return from.columns
    .map((column) => cells[column]?.trim() ?? '')
    .filter(Boolean)
    .join(from.between);
}

/** How many of the columns of a source are of its table; those made of others stand behind them. */
export function widthOf(columns: readonly Column[]): number {
  const first = columns.findIndex(({ from }) => from !== undefined);
  return first < 0 ? columns.length : first;
}

import { HONORIFICS, JOINERS } from '../words/person';

const BETWEEN = /\s+(?:and|und|et|en|agus|e|y|i|&|\+|\/)\s+|\s*[;|]\s*|\s*&\s*/iu;
/** Joins the parts of one name as often as two people. */
const isJoiner = (text: string) => JOINERS.has(text.trim().toLowerCase());
const NAME_WORD = /^[\p{Lu}\p{Lo}][\p{L}'’.-]*$/u;
const MOST_WORDS = 4;

/**
 * The people of a cell that names two or three: `Maren Oakhill & Idris Venn`, `John and Jane Doe`, `Mr and Mrs Doe`; just the cell where it names
 * one. Who has a first name only, or none, shares the last name of the next.
 */
export function peopleIn(cell: string): string[] {
  if (!/[&+/;|]|\s(?:and|und|et|en|agus)\s/i.test(cell)) return [cell];
  const separator = new RegExp(BETWEEN.source, 'giu');
  const parts: string[] = [];
  let from = 0;
  for (const found of cell.matchAll(separator)) {
    if (isJoiner(found[0])) continue;
    parts.push(cell.slice(from, found.index).trim());
    from = found.index + found[0].length;
  }
  parts.push(cell.slice(from).trim());
  if (parts.length < 2 || parts.length > 3 || parts.some((part) => !isName(part))) return [cell];
  const last = parts.at(-1)!.split(/\s+/);
  if (last.length < 2) return [cell];
  const family = last.at(-1)!;
  return parts.map((part) => {
    const words = part.split(/\s+/);
    const names = words.filter((word) => !isHonorific(word));
    return names.length <= 1 && part !== parts.at(-1) ? `${part} ${family}` : part;
  });
}

const isHonorific = (word: string) => HONORIFICS.has(word.toLowerCase().replaceAll('.', ''));

/** A few words that begin as names do. */
function isName(part: string): boolean {
  const words = part.split(/\s+/).filter(Boolean);
  return (
    words.length > 0 && words.length <= MOST_WORDS && words.every((word) => NAME_WORD.test(word) || isHonorific(word))
  );
}

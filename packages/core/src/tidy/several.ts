/** Signs that stand between several values of one cell. */
const BETWEEN = /[;|\n,]|\s\/\s|\s(?=[^\s@]+@)/;
const MAY_BE_SEVERAL = /[;|,/\n]/;

/**
 * The values of a cell that holds several of one kind (`a@x.example; b@x.example`): the first, and the others. A cell of which a part is
 * none of the kind is one value.
 *
 * @param is whether a part is a value of the kind
 */
export function several(cell: string, is: (part: string) => boolean): { first: string; others: string[] } {
  if (!MAY_BE_SEVERAL.test(cell) && cell.indexOf('@') === cell.lastIndexOf('@')) return { first: cell, others: [] };
  const parts = cell
    .split(BETWEEN)
    .map((part) => part.trim())
    .filter(Boolean);
  if (parts.length < 2 || !parts.every(is)) return { first: cell, others: [] };
  const [first, ...others] = parts as [string, ...string[]];
  return { first, others: [...new Set(others)].filter((other) => other !== first) };
}

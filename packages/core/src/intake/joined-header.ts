/**
 * The names of columns whose header stands in two rows: groups above, what is in them below. A group goes over the blank cells behind it.
 *
 * @param above the upper row
 * @param names the lower one
 */
export function joinedNames(above: readonly string[], names: readonly string[]): string[] {
  let group = '';
  return Array.from({ length: Math.max(above.length, names.length) }, (_, i) => {
    group = above[i]?.trim() || group;
    const name = names[i]?.trim() ?? '';
    return [group, name].filter((part, at, all) => part !== '' && all.indexOf(part) === at).join(' ');
  });
}

/** Whether the row above a header holds groups of columns: several words with blanks between them, or what tells apart names that repeat. */
export function hasGroupsAbove(above: readonly string[], names: readonly string[]): boolean {
  const groups = above.map((cell) => cell.trim());
  const filled = groups.filter(Boolean);
  if (filled.length < 2 || filled.some((cell) => /\d|@/.test(cell)) || new Set(filled).size < filled.length)
    return false;
  const own = names.map((name) => name.trim().toLowerCase()).filter(Boolean);
  const repeats = new Set(own).size < own.length;
  // A group goes over a blank cell below which a name stands.
  const goesOver = groups.some((cell, i) => cell === '' && i > 0 && (names[i]?.trim() ?? '') !== '');
  return repeats || (goesOver && filled.length < own.length);
}

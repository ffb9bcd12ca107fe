/** Things in their folders, folders by name; what is in none comes first. */
export function byFolder<T extends { folder: string }>(all: readonly T[]): { name: string; items: T[] }[] {
  const names = [...new Set(all.map(({ folder }) => folder))].sort();
  return names.map((name) => ({ name, items: all.filter(({ folder }) => folder === name) }));
}

import { SITE_WORDS } from '../words/company-names';
import { nameWords } from './name-words';

/**
 * What the names of a group and of its sites have in common: the name without places and without what tells sites apart. `Brackenfold Group` and
 * `Brackenfold Cork Plant Ltd` give `brackenfold`.
 *
 * @param places their words, as `nameWords` spells them
 * @returns '' where nothing or next to nothing is left
 */
export function groupName(name: string, places: ReadonlySet<string>): string {
  const { words } = nameWords(name);
  const left = words.filter((word) => !SITE_WORDS.has(word) && !places.has(word));
  return left.join('').length < 4 ? '' : left.join(' ');
}

import type { ChangeCode } from '../model/change';
import { capitalise, isAllCaps, isAllLower, plainText } from './symbols';
import { SMALL_WORDS } from '../words/company';
import { LEVELS, TEAMS, TITLE_ABBREVIATIONS, TITLE_CAPITALS } from '../words/titles';

export interface JobTitle {
  title: string;
  level: string;
  team: string;
  why: ChangeCode[];
}

/**
 * Tidies a job title: decoration goes, abbreviations are written out, level and team are recognised.
 *
 * @example parseTitle('Prod. Mgr') // { title: 'Production Manager', level: 'manager', team: 'production', ... }
 */
export function parseTitle(input: string): JobTitle {
  const why: ChangeCode[] = [];
  let title = plainText(input);
  if (title !== input.trim()) why.push('symbols-removed');
  const short = title.replace(/\s+[|•]\s.*$|\s+(at|@)\s+\p{Lu}.*$/u, '').trim();
  if (short && short !== title) {
    title = short;
    why.push('slogan-removed');
  }
  const expanded = title
    .split(' ')
    .map((word) => {
      const core = word.replace(/[.,]+$/, '');
      const known = TITLE_ABBREVIATIONS[core.toLowerCase()];
      return known ? known + (word.endsWith(',') ? ',' : '') : word;
    })
    .join(' ');
  if (expanded !== title) why.push('abbreviation');
  const cased =
    isAllCaps(expanded) || isAllLower(expanded) || why.includes('abbreviation') ? titleCase(expanded) : expanded;
  if (cased !== expanded) why.push('capitals');
  return { title: cased, level: first(LEVELS, cased), team: first(TEAMS, cased), why };
}

const first = (table: readonly (readonly [string, RegExp])[], text: string) =>
  table.find(([, words]) => words.test(text))?.[0] ?? '';

const titleCase = (title: string) =>
  title
    .split(' ')
    .map((word, i) => {
      const upper = word.toUpperCase();
      if (TITLE_CAPITALS.has(upper.replace(/[,.]$/, ''))) return upper;
      if (i > 0 && SMALL_WORDS.has(word.toLowerCase())) return word.toLowerCase();
      return word
        .split(/([-/])/)
        .map(capitalise)
        .join('');
    })
    .join(' ');

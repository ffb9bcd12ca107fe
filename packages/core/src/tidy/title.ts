import type { ChangeCode } from '../model/change';
import { capitalise, isAllCaps, isAllLower, plainText } from './symbols';
import { SMALL_WORDS } from '../words/company';
import { TITLE_ABBREVIATIONS, TITLE_CAPITALS } from '../words/titles/titles';
import { titleReader, type TitleMeaning } from './title-meaning';

export interface JobTitle extends TitleMeaning {
  title: string;
  why: ChangeCode[];
}

/**
 * Tidies a job title: decoration goes, abbreviations are written out, level and team are recognised.
 *
 * @param meaningOf reads level and team out of a title, own words included
 * @example parseTitle('Prod. Mgr') // { title: 'Production Manager', level: 'manager', team: 'production', ... }
 */
export function parseTitle(input: string, meaningOf = SHIPPED): JobTitle {
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
  return { title: cased, ...meaningOf(cased), why };
}

const SHIPPED = titleReader();

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

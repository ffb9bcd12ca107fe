import type { ChangeCode } from '../model/change';
import { capitalise, isAllCaps, isAllLower, plainText } from './symbols';
import { COMPANY_ABBREVIATIONS, LEGAL_FORMS, SMALL_WORDS } from '../words/company';

export interface CompanyName {
  name: string;
  legalForm: string;
  why: ChangeCode[];
}

const escape = (s: string) => s.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');

const withoutDot = (form: string) => form.replace(/\.$/, '');
const bareForm = (form: string) => withoutDot(form).toLowerCase();

/**
 * Tidies a company's name: decoration and slogans go, the legal form is split off, shouting becomes ordinary
 * capitals; abbreviations stay.
 *
 * @example parseCompany('CAWS PENLLYN CYF.') // { name: 'Caws Penllyn', legalForm: 'Cyf', why: [...] }
 */
export const parseCompany = companyReader();

/** Tidies companies' names as `parseCompany` does, with legal forms of one's own. */
export function companyReader(own: readonly string[] = []): (input: string) => CompanyName {
  const forms = [...own, ...LEGAL_FORMS].sort((a, b) => b.length - a.length);
  const ending = new RegExp(`^(.*?\\S)[\\s,]+\\(?(${forms.map(escape).join('|')})\\)?\\.?$`, 'i');
  // Of two spellings the first in the list is the canonical one.
  const canonical = new Map([
    ...LEGAL_FORMS.toReversed().map((form) => [bareForm(form), withoutDot(form)] as const),
    ...own.map((form) => [bareForm(form), form] as const),
  ]);
  return (input) => tidied(input, ending, (form) => canonical.get(bareForm(form)) ?? withoutDot(form));
}

function tidied(input: string, ending: RegExp, canonicalForm: (form: string) => string): CompanyName {
  const why: ChangeCode[] = [];
  let name = plainText(input);
  if (name !== input.trim())
    why.push(/[^\s]/.test(input.replace(/\s+/g, ' ').trim().replace(name, '')) ? 'symbols-removed' : 'spaces');
  const short = name.replace(/\s+[|–—]\s.*$|\s+-\s+\S.*\s\S.*\s\S.*$|[:;]\s.*$/u, '').trim();
  if (short !== name && short.length > 1) {
    name = short;
    why.push('slogan-removed');
  }
  let legalForm = '';
  const found = ending.exec(name);
  if (found && isLegalForm(found[1]!, found[2]!)) {
    name = found[1]!.replace(/[\s,]+$/, '');
    legalForm = canonicalForm(found[2]!);
    why.push('legal-form');
  }
  const cased = companyCase(name);
  if (cased !== name) why.push('capitals');
  return { name: cased, legalForm, why };
}

/** Two-letter forms such as AG or AS count only in capitals, and never as a company's whole second word in lower case. */
const isLegalForm = (rest: string, form: string) =>
  rest !== '' && (form.replaceAll('.', '').length > 2 || form === form.toUpperCase());

function companyCase(name: string): string {
  const words = name.split(' ');
  const shouting = isAllCaps(name) && (words.length > 1 || name.length > 5);
  if (!shouting && !isAllLower(name)) return name;
  return words
    .map((word, i) => {
      const upper = word.toUpperCase();
      if (COMPANY_ABBREVIATIONS.has(upper)) return upper;
      if (shouting && /^\p{Lu}{1,4}$/u.test(word) && !/[AEIOUY]/.test(word)) return word;
      if (/^(\p{L}[.&]){1,}\p{L}?\.?$/u.test(word)) return upper;
      if (i > 0 && SMALL_WORDS.has(word.toLowerCase())) return word.toLowerCase();
      return word
        .split(/([-/])/)
        .map(capitalise)
        .join('')
        .replace(/\b([OD])'(\p{L})/gu, (_, a: string, b: string) => `${a}'${b.toUpperCase()}`)
        .replace(/^Mc(\p{L})/u, (_, a: string) => 'Mc' + a.toUpperCase());
    })
    .join(' ');
}

import { CREAMERY_WORDS, LEGAL_FORM_WORDS } from '../words/company';
import { COUNTRY_BY_NAME } from '../words/countries';
import { isFirstName } from '../words/first-names';
import { TITLE_WORDS } from '../words/titles';
import type { Target } from '../model/target';

export const isEmail = (s: string) => /^(mailto:)?[^\s@]+@[^\s@]+\.[^\s@]{2,}$/i.test(s);
export const isLink = (s: string) =>
  /^(https?:\/\/|www\.)\S+$|^[a-z0-9-]+(\.[a-z0-9-]+)*\.[a-z]{2,}(\/\S*)?$/i.test(s) && !s.includes('@');
export const isPhone = (s: string) =>
  /^[+(]?[\d\s().\-/]{7,22}(\s*(x|ext\.?)\s*\d+)?$/i.test(s) && digits(s) >= 7 && digits(s) <= 15;
/** A phone that a spreadsheet turned into a number: 1.13496E+09. */
export const lostDigits = (s: string) => /^\d(\.\d+)?E\+?\d{1,2}$/i.test(s);
export const isDate = (s: string) => /^(\d{1,2}[./-]\d{1,2}[./-]\d{2,4}|\d{4}-\d{2}-\d{2})([T ].*)?$/.test(s);
const isNumber = (s: string) => /^[\d.,\s%£$€-]+$/.test(s);
const isProfile = (s: string) => isLink(s) && /\/(p|in|people|person|profile|members?)\/[\w-]+/i.test(s);

/** A cell that cannot be part of a header. */
export const isData = (s: string) => isEmail(s) || isLink(s) || isPhone(s) || isNumber(s) || isDate(s) || lostDigits(s);

const words = (s: string) => s.toLowerCase().match(/[\p{L}'’-]+/gu) ?? [];
const digits = (s: string) => s.replace(/\D/g, '').length;

function isFullName(s: string): boolean {
  const found = words(s);
  if (found.length < 2 || found.length > 6 || /\d/.test(s)) return false;
  return (
    found.some(isFirstName) &&
    !found.some((word) => TITLE_WORDS.has(word) || LEGAL_FORM_WORDS.has(word) || CREAMERY_WORDS.has(word))
  );
}

/** Tests of single values; what share of a column passes says what the column is. */
export const VALUE_KINDS: Partial<Record<Target, (value: string) => boolean>> = {
  email: isEmail,
  profile: isProfile,
  website: (s) => isLink(s) && !isProfile(s),
  phone: (s) => (isPhone(s) && !isDate(s) && !/^\d{1,6}$/.test(s)) || lostDigits(s),
  country: (s) => COUNTRY_BY_NAME.has(s.toLowerCase()),
  fullName: isFullName,
  firstName: (s) => words(s).length === 1 && isFirstName(words(s)[0]!),
  title: (s) => words(s).some((word) => TITLE_WORDS.has(word)),
  company: (s) => words(s).some((word) => LEGAL_FORM_WORDS.has(word) || CREAMERY_WORDS.has(word)),
  place: (s) =>
    /,\s*\p{Lu}/u.test(s) &&
    COUNTRY_BY_NAME.has(
      s
        .slice(s.lastIndexOf(',') + 1)
        .trim()
        .toLowerCase(),
    ),
};

import { COMPANY_WORDS, LEGAL_FORM_WORDS } from '../words/company';
import { COUNTRY_BY_NAME } from '../words/countries';
import { isFirstName } from '../words/first-names';
import { isTitleWord } from '../words/titles/titles';
import type { Target } from '../model/target';

export const isEmail = (s: string) => /^(mailto:)?[^\s@]+@[^\s@]+\.[^\s@]{2,}$/i.test(s);
export const isLink = (s: string) =>
  /^(https?:\/\/|www\.)\S+$|^[a-z0-9-]+(\.[a-z0-9-]+)*\.[a-z]{2,}(\/\S*)?$/i.test(s) && !s.includes('@');
export const isPhone = (s: string) =>
  /^[+(]?[\d\s().\-/]{7,22}(\s*(x|ext\.?)\s*\d+)?$/i.test(s) && digits(s) >= 7 && digits(s) <= 15;
/** A phone that a spreadsheet turned into a number: 1.13496E+09. */
export const lostDigits = (s: string) => /^\d(\.\d+)?E\+?\d{1,2}$/i.test(s);
export const isDate = (s: string) => /^(\d{1,2}[./-]\d{1,2}[./-]\d{2,4}|\d{4}-\d{2}-\d{2})([T ].*)?$/.test(s);
/** A plain number with a fraction: no phone, however many digits it has. */
const isDecimal = (s: string) => /^-?(0|[1-9]\d*)[.,]\d+$/.test(s);
const isNumber = (s: string) => /^[\d.,\s%£$€-]+$/.test(s);
export const isProfile = (s: string) => isLink(s) && /\/(p|in|people|person|profile|members?)\/[\w-]+/i.test(s);

/** A cell that cannot be part of a header. */
export const isData = (s: string) => isEmail(s) || isLink(s) || isPhone(s) || isNumber(s) || isDate(s) || lostDigits(s);

const KINDS = { email: isEmail, date: isDate, number: isNumber, phone: isPhone, lost: lostDigits, link: isLink };

/** What a cell is, as far as that tells a header from the cells below it; null for words. */
export const cellKind = (s: string): keyof typeof KINDS | null =>
  (Object.keys(KINDS) as (keyof typeof KINDS)[]).find((kind) => KINDS[kind](s)) ?? null;

const words = (s: string) => s.toLowerCase().match(/[\p{L}'’-]+/gu) ?? [];
const digits = (s: string) => s.replace(/\D/g, '').length;

function isFullName(s: string, isCompanyWord: (word: string) => boolean): boolean {
  const found = words(s);
  if (found.length < 2 || found.length > 6 || /\d/.test(s)) return false;
  return found.some(isFirstName) && !found.some((word) => isTitleWord(word) || isCompanyWord(word));
}

/** GB, IE, CA and NL forms; codes of digits alone look like many other numbers and are told by their header. */
const isPostcode = (s: string) =>
  /^([A-Z]{1,2}\d[A-Z\d]?\s*\d[A-Z]{2}|[A-Z]\d[\dW]\s?[A-Z\d]{4}|[A-Z]\d[A-Z]\s?\d[A-Z]\d|\d{4}\s?[A-Z]{2}|\d{5}-\d{4})$/i.test(
    s,
  );
const HONORIFIC =
  /^(mr|mrs|ms|miss|mx|dr|prof|sir|dame|lord|lady|rev|herr|frau|mme|mlle|m|sr|sra|srta|sig|sig\.ra|dott|dhr|mevr|mw)\.?( (dr|prof)\.?)?$/i;
const STREET_WORD =
  /\b(st|street|rd|road|ave?|avenue|lane|ln|drive|dr|close|court|ct|place|pl|way|square|sq|blvd|boulevard|crescent|terrace|row|park|estate|hwy|highway)\b/i;
const isStreet = (s: string) => /^\d+[a-z]?,?\s+\p{L}/iu.test(s) && STREET_WORD.test(s);

/**
 * Tests of single values; what share of a column passes says what the column is.
 *
 * @param companyWords words of firms' names beside those that ship
 */
export function valueKinds(companyWords: readonly string[]): Partial<Record<Target, (value: string) => boolean>> {
  const known = new Set([...COMPANY_WORDS, ...LEGAL_FORM_WORDS, ...companyWords]);
  const isCompanyWord = (word: string) => known.has(word);
  return {
    email: isEmail,
    honorific: (s) => HONORIFIC.test(s),
    profile: isProfile,
    website: (s) => isLink(s) && !isProfile(s),
    phone: (s) => (isPhone(s) && !isDecimal(s) && !isDate(s) && !/^\d{1,6}$/.test(s)) || lostDigits(s),
    country: (s) => COUNTRY_BY_NAME.has(s.toLowerCase()),
    fullName: (s) => isFullName(s, isCompanyWord),
    firstName: (s) => words(s).length === 1 && isFirstName(words(s)[0]!),
    title: (s) => words(s).some(isTitleWord),
    company: (s) => words(s).some(isCompanyWord),
    postcode: isPostcode,
    street: isStreet,
    place: (s) =>
      /,\s*\p{Lu}/u.test(s) &&
      COUNTRY_BY_NAME.has(
        s
          .slice(s.lastIndexOf(',') + 1)
          .trim()
          .toLowerCase(),
      ),
  };
}

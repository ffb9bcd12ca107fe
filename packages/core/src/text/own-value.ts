import type { OwnType } from '../model/target';

const YES = new Set('yes y true t 1 x ✓ ✔ on ja j oui si sí sì tá wahr vrai'.split(' '));
const NO = new Set('no n false f 0 off nein non nee níl falsch faux - –'.split(' '));

const MONTHS: readonly RegExp[] = [
  /^jan|^ene|^gen/,
  /^feb|^fév|^fev/,
  /^mar|^mär|^maa|^mrz/,
  /^apr|^avr|^abr/,
  /^may|^mai|^mei|^mag/,
  /^jun|^juin|^giu/,
  /^jul|^juil|^lug/,
  /^aug|^aoû|^aou|^ago/,
  /^sep|^set/,
  /^oct|^okt|^ott/,
  /^nov/,
  /^dec|^dez|^déc|^dic/,
];

/**
 * A value of a field of the person's own in one form: a number as plain digits with a point, a date as ISO 8601, 'yes' or 'no'.
 *
 * Whether dates of figures begin with the day or the month is said of all of a column; a comma before three digits parts thousands.
 *
 * @returns null for what is none of its type
 */
export function ownValue(type: OwnType, input: string): string | null {
  const text = input.trim();
  if (type === 'number') return plainNumber(text);
  if (type === 'date' || type === 'month-date') return isoDate(text, type === 'month-date');
  if (type === 'yes-no') return YES.has(text.toLowerCase()) ? 'yes' : NO.has(text.toLowerCase()) ? 'no' : null;
  return text;
}

/** What all of some values are: a type whose values they are, else text. */
export function ownTypeOf(values: readonly string[]): OwnType {
  if (values.length === 0) return 'text';
  const all = (type: OwnType) => values.every((value) => ownValue(type, value) !== null);
  if (all('yes-no') && values.some((value) => !/^\d$/.test(value.trim()))) return 'yes-no';
  // A figure with zeros before it is a name for something, not a count.
  if (all('number') && !values.some((value) => /^0\d/.test(value.trim()))) return 'number';
  return all('date') ? 'date' : all('month-date') ? 'month-date' : 'text';
}

function plainNumber(text: string): string | null {
  const match = /^(-|−|\()?\s*[€£$]?\s*(\d[\d.,'’\s]*)\s*(?:%|[€£$])?\)?$/u.exec(text);
  if (!match) return null;
  let digits = match[2]!.replace(/['’\s]/gu, '');
  const last = Math.max(digits.lastIndexOf('.'), digits.lastIndexOf(','));
  if (last >= 0) {
    const mark = digits[last]!;
    const isAlone = digits.indexOf(mark) === last;
    const behind = digits.length - last - 1;
    const isThousands = !isAlone || (mark === ',' && behind === 3 && !digits.includes('.'));
    const whole = digits.slice(0, last).replace(/[.,]/g, '');
    digits = isThousands ? digits.replace(/[.,]/g, '') : `${whole}.${digits.slice(last + 1)}`;
  }
  const value = Number(digits);
  return Number.isFinite(value) ? String(match[1] && value !== 0 ? -value : value) : null;
}

function isoDate(text: string, monthFirst: boolean): string | null {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})(?:[T ].*)?$/.exec(text);
  if (iso) return dateOf(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  const figures = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4}|\d{2})(?:[ T].*)?$/.exec(text);
  if (figures) {
    const [a, b, year] = [Number(figures[1]), Number(figures[2]), fullYear(figures[3]!)];
    return monthFirst ? dateOf(year, a, b) : dateOf(year, b, a);
  }
  const named = /^(?:(\d{1,2})\.?\s+)?(\p{L}{3,})\.?\s+(?:(\d{1,2})(?:st|nd|rd|th)?,?\s+)?(\d{4})$/u.exec(text);
  const month = named ? MONTHS.findIndex((name) => name.test(named[2]!.toLowerCase())) + 1 : 0;
  const day = Number(named?.[1] ?? named?.[3] ?? 0);
  return month > 0 && day > 0 ? dateOf(Number(named![4]), month, day) : null;
}

/** Two figures are of this century up to 69 (POSIX, strptime %y). */
const fullYear = (year: string): number =>
  year.length === 4 ? Number(year) : Number(year) < 69 ? 2000 + Number(year) : 1900 + Number(year);

/** Null for a day that no month has. */
function dateOf(year: number, month: number, day: number): string | null {
  const date = new Date(Date.UTC(year, month - 1, day));
  return date.getUTCMonth() === month - 1 && date.getUTCDate() === day ? date.toISOString().slice(0, 10) : null;
}

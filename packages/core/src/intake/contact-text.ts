import { findPhoneNumbersInText, type CountryCode } from 'libphonenumber-js/max';
import type { ContactPart, ContactText } from '../model/contact-parts';
import { isDate, isLink, isPhone, isProfile, valueKinds } from './value-kinds';

const EMAIL = /[^\s<>()[\],;:"“”]+@[^\s<>()[\],;:"“”]+\.[\p{L}]{2,}/gu;
/** Words before a value that say what it is. */
const LABEL =
  /^(e-?mail|mail|e|tel(ephone)?|phone|direct|office|mobile|mob|cell|t|m|d|p|o|web(site)?|www|w|address|a|linked ?in|profile)\s*[:.]\s*/i;
const FAX = /^\s*(fax|f)\s*[:.]/i;
/** A line that only takes leave. */
const GREETING =
  /^((with )?(kind|best|warm|many)?\s*(regards|wishes|thanks)|cheers|(yours )?sincerely|(mit )?(freundlichen|viele|beste) grüßen?|cordialement|(cordiales )?saludos|cordiali saluti|met vriendelijke groet)[\s,.!]*$/i;
/** What is longer is a text, and nobody's name or address. */
const LONGEST_LINE = 1000;
const PARTS = /\s+[|•·–—]\s+|\s{3,}|\t/;

/**
 * Recognises a contact in what somebody pasted: a signature, a card, the text of a page. Addresses, phones and links by what they are, the
 * rest by their words and by where they stand. What is not recognised goes to `note`, so nothing of it is lost.
 *
 * @param country ISO 3166 country of phones without a country code
 * @param companyWords words of firms' names beside those that ship
 */
export function contactIn(text: string, country: string, companyWords: readonly string[] = []): ContactText {
  const kinds = valueKinds(companyWords);
  const out: ContactText = {};
  const found = { email: [] as string[], phone: [] as string[], website: [] as string[], profile: [] as string[] };
  const lines = text
    .split(/\r?\n/)
    .flatMap((line) => line.split(PARTS))
    .map((line) => takeOut(line, country, found))
    .filter((line) => /[\p{L}\p{N}]/u.test(line) && !GREETING.test(line));
  for (const [part, values] of Object.entries(found) as [keyof typeof found, string[]][])
    if (values.length > 0) out[part] = [...new Set(values)].join('; ');

  const rest: string[] = [];
  const isFree = (part: ContactPart) => out[part] === undefined;
  const local = (found.email[0] ?? '').split('@')[0]!.toLowerCase();
  const domain = (found.email[0] ?? '').split('@')[1]?.split('.')[0] ?? '';
  for (const line of lines) {
    if (line.length > LONGEST_LINE) {
      rest.push(line);
      continue;
    }
    const [head, ...tail] = line.split(/,\s+|\s+(?:at|bei|chez|@)\s+/);
    if (isFree('fullName') && (kinds.fullName!(line) || isNameOf(line, local))) out.fullName = line;
    else if (isFree('fullName') && kinds.fullName!(head!) && tail.length > 0) {
      out.fullName = head!;
      if (isFree('title')) out.title = tail.join(', ');
    } else if (isFree('company') && (kinds.company!(line) || isFirmOf(line, domain)) && !kinds.title!(head!))
      out.company = line;
    else if (isFree('title') && kinds.title!(head!)) {
      out.title = head!;
      if (tail.length > 0 && isFree('company')) out.company = tail.join(', ');
      else if (tail.length > 0) out.title = line;
    } else if (isFree('place') && isPlace(line, kinds)) out.place = line;
    else rest.push(line);
  }
  // Who stands first, over a title or a firm, is who it is about.
  if (isFree('fullName') && rest[0] !== undefined && looksLikeName(rest[0])) out.fullName = rest.shift()!;
  if (rest.length > 0) out.note = rest.join(' · ');
  return out;
}

/** Takes addresses, links and phones out of a line. @returns what is left of it */
function takeOut(
  line: string,
  country: string,
  found: Record<'email' | 'phone' | 'website' | 'profile', string[]>,
): string {
  let left = line.trim();
  // A fax takes no calls: its line is for the note.
  if (left.length > LONGEST_LINE || FAX.test(left)) return left;
  for (const [email] of left.matchAll(EMAIL)) {
    found.email.push(email.replace(/^mailto:/i, ''));
    left = left.replace(email, ' ');
  }
  for (const word of left.split(/[\s<>()]+/))
    if (isLink(word) && /[/.]/.test(word)) {
      (isProfile(word) ? found.profile : found.website).push(word);
      left = left.replace(word, ' ');
    }
  const phones = isDate(left.trim()) ? [] : findPhoneNumbersInText(left, country as CountryCode);
  for (const { number, startsAt, endsAt } of [...phones].reverse()) {
    found.phone.unshift(number.ext ? `${number.number} x${number.ext}` : number.number);
    left = `${left.slice(0, startsAt)} ${left.slice(endsAt)}`;
  }
  const rest = left
    .replace(LABEL, '')
    .replace(/^[\s,;:|/()<>-]+|[\s,;:|/(<>+-]+$/g, '')
    .replace(/\s+/g, ' ');
  // A number that no numbering plan has is a phone all the same.
  if (!isPhone(rest) || isDate(rest) || digitsOf(rest) < 9) return rest;
  found.phone.push(rest);
  return '';
}

const digitsOf = (text: string) => text.replace(/\D/g, '').length;
const letters = (text: string) =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z]/g, '');

/** `maren.oakhill` is of Maren Oakhill, and `moakhill`, too. */
function isNameOf(line: string, local: string): boolean {
  const words = line.split(/\s+/).map(letters).filter(Boolean);
  if (words.length < 2 || words.length > 5 || local === '' || !looksLikeName(line)) return false;
  const own = letters(local);
  const [first, last] = [words[0]!, words.at(-1)!];
  return [first + last, last + first, first[0]! + last, last + first[0]!, first].includes(own);
}

/** The firm whose domain the address has; short ones are in many words. */
const isFirmOf = (line: string, domain: string): boolean => {
  const own = letters(domain);
  return own.length >= 4 && letters(line).includes(own);
};

const looksLikeName = (line: string): boolean =>
  /^\p{Lu}[\p{L}'’.-]+(\s+\p{L}[\p{L}'’.-]*){1,4}$/u.test(line) && !/\d/.test(line);

function isPlace(line: string, kinds: ReturnType<typeof valueKinds>): boolean {
  const parts = line.split(/,\s*/);
  return (
    kinds.place!(line) ||
    kinds.country!(line) ||
    kinds.street!(line) ||
    parts.some((part) => kinds.postcode!(part.trim()) || /\b[A-Z]{1,2}\d[A-Z\d]?\s\d[A-Z]{2}\b/.test(part))
  );
}

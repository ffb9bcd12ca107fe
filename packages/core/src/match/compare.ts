import { jaroWinkler } from '../text/jaro-winkler';
import { oneEdit } from '../text/one-edit';
import { areForms } from '../words/nicknames';
import { isFreeMail, isRole } from '../words/mail';
import type { Interned, Subjects } from './subject';

/** What is compared, in the order of the digits of a pattern. */
export const COMPARED = [
  'firstName',
  'lastName',
  'email',
  'phone',
  'profile',
  'company',
  'city',
  'title',
  'suffix',
] as const;
export type Compared = (typeof COMPARED)[number];

/** How alike two values are: 0 one side is blank, 1 different, 2 near, 3 nearly the same, 4 the same. */
export type Level = 0 | 1 | 2 | 3 | 4;
export const LEVELS = 5;

export type Compare = (a: number, b: number) => Level;

/** One comparison a field over the interned values of the records. */
export function comparisons(s: Subjects): Record<Compared, Compare> {
  const first = remembered(s.firstName, firstNameLevel);
  const last = remembered(s.lastName, lastNameLevel);
  const company = remembered(s.company, companyLevel);
  const city = remembered(s.city, (a, b) => (jaroWinkler(a, b, 0.92) >= 0.92 ? 3 : 1));
  const title = remembered(s.title, titleLevel);
  const swapped = swappedNames(s);
  const turned =
    (compare: Compare): Compare =>
    (a, b) => {
      const level = compare(a, b);
      return level === 1 && swapped(a, b) && first(a, b) === 1 && last(a, b) === 1 ? 3 : level;
    };
  const email = remembered(s.email, emailLevel);
  const phone = remembered(s.phone, phoneLevel);
  const areTwo = (a: number, b: number) => {
    const [firsts, lasts] = [first(a, b), last(a, b)];
    if (firsts === 1) return !swapped(a, b);
    return lasts === 1 && (firsts === 2 || email(a, b) === 1);
  };
  const sharedEmail = sharedValues(s.email, areTwo);
  const sharedPhone = sharedValues(s.phone, areTwo);
  const unless =
    (shared: Uint8Array, { ids }: Interned, compare: Compare): Compare =>
    (a, b) => {
      const level = compare(a, b);
      return level === 4 && shared[ids[a]!] === 1 ? 2 : level;
    };
  return {
    firstName: turned(first),
    lastName: turned(last),
    email: unless(sharedEmail, s.email, email),
    phone: unless(sharedPhone, s.phone, phone),
    profile: (a, b) => exact(s.profile, a, b),
    company: (a, b) => (exact(s.domain, a, b) === 4 ? 4 : company(a, b)),
    city: placeLevel(s, city),
    title,
    suffix: generationLevel(s.suffix),
  };
}

/** A value with more records than this is looked at along its order only. */
const MOST_LOOKED_AT = 12;

/** The values that two people have: switchboards, office mailboxes, a family's phone. */
function sharedValues({ ids, values, counts }: Interned, areTwo: (a: number, b: number) => boolean): Uint8Array {
  const shared = Uint8Array.from(values, (value) => (isRole(value) ? 1 : 0));
  const holders = new Map<number, number[]>();
  for (const [i, id] of ids.entries()) {
    if (id === 0 || counts[id]! < 2 || shared[id] === 1) continue;
    const others = holders.get(id) ?? [];
    if (others.some((other) => areTwo(other, i))) shared[id] = 1;
    else if (others.length < MOST_LOOKED_AT) holders.set(id, [...others, i]);
  }
  return shared;
}

/** Tells whether first and last name stand in each other's place, give or take a letter behind the first. */
function swappedNames(s: Subjects): (a: number, b: number) => boolean {
  const { firstName, lastName } = s;
  const letters = ({ values }: Interned) => Uint16Array.from(values, (value) => value.charCodeAt(0) || 0);
  const ofFirst = letters(firstName);
  const ofLast = letters(lastName);
  return (a, b) => {
    const [firstA, lastA] = [firstName.ids[a]!, lastName.ids[a]!];
    const [firstB, lastB] = [firstName.ids[b]!, lastName.ids[b]!];
    if (firstA === 0 || ofFirst[firstA] !== ofLast[lastB] || ofLast[lastA] !== ofFirst[firstB]) return false;
    const stand = (first: number, last: number, itsFirst: number, itsLast: number) =>
      firstNameLevel(firstName.values[first]!, lastName.values[last]!) > 1 &&
      lastNameLevel(lastName.values[itsLast]!, firstName.values[itsFirst]!) > 1;
    return stand(firstA, lastB, firstB, lastA) || stand(firstB, lastA, firstA, lastB);
  };
}

/**
 * Street, postcode and city say one thing three times, so they count once: by street and postcode where both records have
 * them, else by city.
 */
function placeLevel({ street, postcode }: Subjects, city: Compare): Compare {
  const streets = remembered(street, (a, b) => (jaroWinkler(a, b, 0.92) >= 0.92 ? 3 : 1));
  const postcodes = remembered(postcode, (a, b) => (oneEdit(a, b) ? 3 : 1));
  return (a, b) => {
    const byStreet = streets(a, b);
    const byPostcode = postcodes(a, b);
    if (byStreet === 0 && byPostcode === 0) return city(a, b);
    const best = Math.max(byStreet, byPostcode) as Level;
    return best > 1 ? best : city(a, b) >= 3 ? 2 : 1;
  };
}

const exact = (column: Interned, a: number, b: number): Level => {
  const x = column.ids[a]!;
  const y = column.ids[b]!;
  return x === 0 || y === 0 ? 0 : x === y ? 4 : 1;
};

/** Father and son differ by a Jr that is often left out: one that is missing says a little, another one much. */
const generationLevel =
  ({ ids }: Interned): Compare =>
  (a, b) => {
    const [x, y] = [ids[a]!, ids[b]!];
    if (x === y) return x === 0 ? 0 : 4;
    return x === 0 || y === 0 ? 2 : 1;
  };

export function firstNameLevel(a: string, b: string): Level {
  if (a.length === 1 || b.length === 1) return a[0] === b[0] ? 2 : 1;
  if (a === b || areForms(a, b)) return 3;
  const similarity = jaroWinkler(a, b, 0.84);
  if (similarity >= 0.92) return 3;
  return similarity >= 0.84 || (a.length > 2 && oneEdit(a, b)) ? 2 : 1;
}

export function lastNameLevel(a: string, b: string): Level {
  const similarity = jaroWinkler(a, b, 0.88);
  return similarity >= 0.94 || (a.length > 3 && oneEdit(a, b))
    ? 3
    : similarity >= 0.88 || (Math.min(a.length, b.length) > 3 && (a.endsWith(b) || b.endsWith(a)))
      ? 2
      : 1;
}

export function companyLevel(a: string, b: string): Level {
  const similarity = jaroWinkler(a, b, 0.88);
  if (similarity >= 0.94) return 3;
  return similarity >= 0.88 || (Math.min(a.length, b.length) > 4 && (a.startsWith(b) || b.startsWith(a))) ? 2 : 1;
}

export function titleLevel(a: string, b: string): Level {
  const x = new Set(a.match(/\p{L}{2,}/gu));
  const y = new Set(b.match(/\p{L}{2,}/gu));
  let shared = 0;
  for (const word of x) if (y.has(word)) shared++;
  const overlap = shared / Math.max(1, x.size + y.size - shared);
  return overlap >= 0.6 ? 3 : overlap > 0.2 ? 2 : 1;
}

/** 3: a slip of the pen, or the same name at another domain; 2: at another domain; 1: another mailbox at the same firm. */
export function emailLevel(a: string, b: string): Level {
  const [atA, atB] = [a.indexOf('@'), b.indexOf('@')];
  const [localA, localB] = [a.slice(0, atA), b.slice(0, atB)];
  const domain = a.slice(atA + 1);
  if (domain !== b.slice(atB + 1)) return localA === localB && localA.length > 4 && !isRole(a) ? 3 : 2;
  // Namesakes are told apart by figures.
  const figures = (local: string) => local.replace(/\D/g, '');
  if (figures(localA) === figures(localB) && (oneEdit(localA, localB) || jaroWinkler(localA, localB, 0.95) >= 0.95))
    return 3;
  return isFreeMail(domain, []) ? 2 : 1;
}

export const phoneLevel = (a: string, b: string): Level => (oneEdit(a, b) ? 3 : 1);

/** Compares interned values and remembers what was found; a direct-mapped cache, so that it cannot grow. */
function remembered(column: Interned, compare: (a: string, b: string) => Level): Compare {
  const bits = Math.max(6, Math.min(18, Math.ceil(Math.log2(column.values.length * 16))));
  const slots = 1 << bits;
  const keys = new Float64Array(slots).fill(-1);
  const levels = new Uint8Array(slots);
  const { ids, values } = column;
  return (a, b) => {
    const x = Math.min(ids[a]!, ids[b]!);
    const y = Math.max(ids[a]!, ids[b]!);
    if (x === 0) return 0;
    if (x === y) return 4;
    const key = x * values.length + y;
    const slot = (Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca6b)) >>> (32 - bits);
    if (keys[slot] !== key) {
      keys[slot] = key;
      levels[slot] = compare(values[x]!, values[y]!);
    }
    return levels[slot] as Level;
  };
}

import { chance, pick, weighted } from '../kit/chance';
import { FIRM_WORDS, FIRST, KINDS, LAST, PLACES, STEMS, TITLES } from './words';

/** How a firm's mail server treats a question about a mailbox. */
export type MailManner = 'plain' | 'catch-all' | 'greylist' | 'slow' | 'drop' | 'refuse' | 'none';
export type AddressPattern = 'first.last' | 'flast' | 'first' | 'f.last' | 'firstlast' | 'odd';

export interface Firm {
  id: number;
  name: string;
  legalForm: string;
  kind: (typeof KINDS)[keyof typeof KINDS];
  domain: string;
  city: string;
  region: string;
  country: string;
  manner: MailManner;
  pattern: AddressPattern;
  mailHost: string;
}

export interface Worker {
  id: number;
  firstName: string;
  lastName: string;
  title: string;
  firm: Firm;
  email: string;
  phone: string;
  /** full: the mailbox is full; moved: the address is gone. */
  mailbox: 'open' | 'full' | 'moved';
}

export interface World {
  firms: Firm[];
  people: Worker[];
  firmByDomain: Map<string, Firm>;
  personByEmail: Map<string, Worker>;
  /** People of a domain by folded name. */
  personByName: (firstName: string, lastName: string, domain: string) => Worker | undefined;
}

export const FIRMS = 6000;
export const PEOPLE = 40_000;
/** Hosts that take mail for many small firms. */
const SHARED_HOSTS = ['mx.north-post.example', 'mx.brightmail-cloud.example', 'mx.harbourhost.example'];

/** The seeded world: always the same for the same seed. */
export function buildWorld(seed: number): World {
  const firms = Array.from({ length: FIRMS }, (_, id) => firm(seed, id));
  const people = Array.from({ length: PEOPLE }, (_, id) => worker(seed, id, firms));
  const personByEmail = new Map<string, Worker>();
  const byName = new Map<string, Worker>();
  for (const person of people) {
    while (personByEmail.has(person.email))
      person.email = person.email.replace(/(\d*)@/, (_, n: string) => `${Number(n || 1) + 1}@`);
    personByEmail.set(person.email, person);
    byName.set(nameKey(person.firstName, person.lastName, person.firm.domain), person);
  }
  return {
    firms,
    people,
    personByEmail,
    firmByDomain: new Map(firms.map((f) => [f.domain, f])),
    personByName: (firstName, lastName, domain) => byName.get(nameKey(firstName, lastName, domain)),
  };
}

export const letters = (name: string): string =>
  name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z]/g, '');

const nameKey = (firstName: string, lastName: string, domain: string) =>
  `${letters(firstName)} ${letters(lastName)} ${domain}`;

function firm(seed: number, id: number): Firm {
  const stem = STEMS[(id * 7919 + seed) % STEMS.length]!;
  const words = pick(FIRM_WORDS, seed, 'words', id);
  const [city, region, country] = pick(
    PLACES.slice(0, chance(seed, 'abroad', id) < 0.8 ? 19 : PLACES.length),
    seed,
    'place',
    id,
  );
  const domain = `${stem.toLowerCase()}${
    id % 3 === 0
      ? ''
      : `-${words
          .toLowerCase()
          .replace(/[^a-z]+/g, '')
          .slice(0, 5)}`
  }.example`;
  return {
    id,
    name: `${stem} ${words}`,
    legalForm:
      country === 'US' ? 'LLC' : country === 'AU' ? 'Pty Ltd' : pick(['Ltd', 'Limited', 'Ltd.', ''], seed, 'form', id),
    kind: KINDS[words],
    domain,
    city,
    region,
    country,
    manner: weighted(
      { plain: 66, 'catch-all': 14, greylist: 8, slow: 4, drop: 2, refuse: 2, none: 4 },
      seed,
      'manner',
      id,
    ),
    pattern: weighted(
      { 'first.last': 30, flast: 16, first: 12, 'f.last': 6, firstlast: 4, odd: 32 },
      seed,
      'pattern',
      id,
    ),
    mailHost: chance(seed, 'host', id) < 0.5 ? pick(SHARED_HOSTS, seed, 'shared', id) : `mail.${domain}`,
  };
}

function worker(seed: number, id: number, firms: Firm[]): Worker {
  const own = firms[id < FIRMS ? id : Math.floor(chance(seed, 'firm', id) ** 1.6 * FIRMS)]!;
  const firstName = pick(FIRST, seed, 'first', id);
  const lastName = pick(LAST, seed, 'last', id)
    .replaceAll('-der-', ' der ')
    .replace(/^(van|de|Ni)-/, '$1 ');
  return {
    id,
    firstName,
    lastName,
    title: pick(TITLES, seed, 'title', id),
    firm: own,
    email: `${localPart(own.pattern, letters(firstName), letters(lastName))}@${own.domain}`,
    phone: phone(seed, id, own.country),
    mailbox: weighted({ open: 92, full: 2, moved: 6 }, seed, 'mailbox', id),
  };
}

function localPart(pattern: AddressPattern, first: string, last: string): string {
  if (pattern === 'first') return first;
  if (pattern === 'flast') return first[0]! + last;
  if (pattern === 'f.last') return `${first[0]!}.${last}`;
  if (pattern === 'odd') return first.slice(0, 3) + last.slice(0, 4);
  return pattern === 'firstlast' ? first + last : `${first}.${last}`;
}

/** Only from ranges that regulators keep for fiction and that phone libraries accept. */
function phone(seed: number, id: number, country: string): string {
  const n = (size: number) => String(Math.floor(chance(seed, 'phone', id) * size));
  if (country === 'US' || country === 'CA')
    return `+1${country === 'US' ? '201' : '604'}55501${n(100).padStart(2, '0')}`;
  if (country === 'AU') return `+6149157015${n(10) < '6' ? '6' : n(10)}`;
  return chance(seed, 'area', id) < 0.5
    ? `+442079460${n(1000).padStart(3, '0')}`
    : `+441134960${n(1000).padStart(3, '0')}`;
}

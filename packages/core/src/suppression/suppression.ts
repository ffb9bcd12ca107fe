import type { Person } from '../model/person';
import type { Suppression, SuppressionEntry, SuppressionKind } from '../model/suppression';
import { parseCompany } from '../tidy/company-name';
import { normaliseEmail } from '../tidy/email';
import { canonicalLink, isHost, registrableDomain } from '../tidy/link';
import { parseName } from '../tidy/person-name';
import { parsePhone } from '../tidy/phone';
import { fold } from '../text/fold';
import { remembered } from '../text/remembered';

const firmKey = (company: string) => fold(parseCompany(company).name);
const personKey = (firstName: string, lastName: string, company: string, firmOf = firmKey) =>
  firstName.length > 1 && lastName !== '' && company !== ''
    ? `person:${fold(firstName)} ${fold(lastName)} ${firmOf(company)}`
    : '';

/** The key by which an entry is known: what is written in two ways is one entry. */
export function suppressionKey({ kind, value }: Pick<SuppressionEntry, 'kind' | 'value'>): string {
  if (kind === 'company') return `company:${firmKey(value)}`;
  if (kind !== 'person') return `${kind}:${value}`;
  const [name, company] = apart(value);
  const { firstName, lastName } = parseName(name);
  return personKey(firstName, lastName, company);
}

const apart = (text: string): [string, string] => {
  const comma = text.indexOf(',');
  return [text.slice(0, comma).trim(), text.slice(comma + 1).trim()];
};

type Named = Pick<Person, 'firstName' | 'lastName' | 'email' | 'phone' | 'profile' | 'domain' | 'company'>;

type FindEntry = (person: Readonly<Named>) => SuppressionEntry | undefined;

const onlyCalls = ({ why }: SuppressionEntry) => why === 'not to be called';

/** Finds the entry that says somebody must not be contacted; undefined: none does. Who is only not to be called can be written to. */
export const suppressor = (list: Suppression): FindEntry =>
  entryFinder(new Map([...list].filter(([, entry]) => !onlyCalls(entry))));

/** Finds the entry that says somebody must not be called. */
export const callSuppressor = (list: Suppression): FindEntry =>
  entryFinder(new Map([...list].filter(([, entry]) => onlyCalls(entry))));

/** Finds the entry that names somebody, one about themselves before one about their firm. */
function entryFinder(list: Suppression): FindEntry {
  if (list.size === 0) return () => undefined;
  const kinds = new Set([...list.values()].map(({ kind }) => kind));
  const has = (kind: SuppressionKind) => kinds.has(kind);
  // Firms come again and again, and reading their names takes longest.
  const firmOf = remembered(firmKey);
  const find = (kind: SuppressionKind, value: string) => (value === '' ? undefined : list.get(`${kind}:${value}`));
  return ({ firstName, lastName, email, phone, profile, domain, company }) => {
    const host = has('domain') ? email.slice(email.indexOf('@') + 1) : '';
    return (
      find('email', email) ??
      find('profile', profile) ??
      find('phone', phone) ??
      (has('person') ? list.get(personKey(firstName, lastName, company, firmOf)) : undefined) ??
      find('domain', host) ??
      (host === '' ? undefined : find('domain', registrableDomain(host))) ??
      find('domain', domain) ??
      (has('company') && company !== '' ? find('company', firmOf(company)) : undefined)
    );
  };
}

/**
 * Reads who is named in lines: addresses, domains, profile links, phones, `name, company`, and companies by their names. Several
 * addresses or domains may stand in one line.
 *
 * @param country ISO 3166 country of phones without a country code
 * @returns `refused`: lines, or words of lines, that name nobody
 */
export function readSuppression(
  text: string,
  country: string,
): { entries: Pick<SuppressionEntry, 'kind' | 'value'>[]; refused: string[] } {
  const entries: Pick<SuppressionEntry, 'kind' | 'value'>[] = [];
  const refused: string[] = [];
  for (const line of text.split('\n')) {
    const words = line.split(/[\s,;]+/).filter(Boolean);
    const named = words.map(wordEntry);
    const one = named.some(Boolean) ? null : lineEntry(line.trim(), country);
    if (one) entries.push(one);
    else
      for (const [i, word] of words.entries()) {
        const entry = named[i];
        if (entry) entries.push(entry);
        else refused.push(word.slice(0, 100));
      }
  }
  return { entries, refused };
}

/** An address, a domain or a link to a profile. */
function wordEntry(word: string): Pick<SuppressionEntry, 'kind' | 'value'> | null {
  const email = normaliseEmail(word);
  if (email) return { kind: 'email', value: email };
  const host = word.toLowerCase().replace(/^@/, '');
  if (isHost(host)) return { kind: 'domain', value: host };
  const link = canonicalLink(word);
  if (!link) return null;
  return link.includes('/') ? { kind: 'profile', value: link } : { kind: 'domain', value: registrableDomain(link) };
}

/** A phone, a person of a company, or a company. */
function lineEntry(line: string, country: string): Pick<SuppressionEntry, 'kind' | 'value'> | null {
  if (line === '') return null;
  const { e164 } = parsePhone(line, country);
  if (e164) return { kind: 'phone', value: e164 };
  if (!/\p{L}{2}/u.test(line) || line.includes('@') || !/^[\p{Lu}\p{N}]|\s/u.test(line)) return null;
  if (line.includes(','))
    return suppressionKey({ kind: 'person', value: line }) ? { kind: 'person', value: line } : null;
  return firmKey(line) ? { kind: 'company', value: line } : null;
}

/** The entries that name somebody of a list of people: by all that is known of them; a row without a person names its firm. */
export function suppressionOf(person: Readonly<Named>): Pick<SuppressionEntry, 'kind' | 'value'>[] {
  const { firstName, lastName, email, phone, profile, domain, company } = person;
  const out: Pick<SuppressionEntry, 'kind' | 'value'>[] = [];
  if (email) out.push({ kind: 'email', value: email });
  if (profile) out.push({ kind: 'profile', value: profile });
  if (personKey(firstName, lastName, company))
    out.push({ kind: 'person', value: `${firstName} ${lastName}, ${company}` });
  if (out.length > 0) return out;
  // A line may be all of a firm's.
  if (phone) return [{ kind: 'phone', value: phone }];
  if (domain) out.push({ kind: 'domain', value: domain });
  if (company) out.push({ kind: 'company', value: company });
  return out;
}

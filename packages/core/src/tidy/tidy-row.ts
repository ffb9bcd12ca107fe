import type { Change, ChangeCode } from '../model/change';
import type { Issue } from '../model/issue';
import { emptyPerson, type Person, type PersonField } from '../model/person';
import { ownName, type Column, type Target } from '../model/target';
import { ownValue } from '../text/own-value';
import { remembered } from '../text/remembered';
import { companyReader } from './company-name';
import { derivedValue, widthOf } from './derived';
import { normaliseEmail } from './email';
import { canonicalLink, registrableDomain } from './link';
import { nameFromEmail } from './name-from-email';
import { nameReader, type PersonName } from './person-name';
import { parsePhone } from './phone';
import { countryCode, parsePlace, tidyPlaceName } from './place';
import { several } from './several';
import { plainText } from './symbols';
import { peopleIn } from './two-people';
import { parseTitle } from './title';
import { titleReader } from './title-meaning';
import type { WordLists } from '../model/word-lists';
import { isFreeMail } from '../words/mail';

/** What tidying depends on, besides the row. */
export interface TidyWith {
  /** ISO 3166 country of phones without a country code. */
  phoneCountry: string;
  lists: Pick<WordLists, 'freeMail' | 'titleWords' | 'legalForms' | 'nameParts'>;
}

export interface TidyRow {
  person: Person;
  /** Fields of the person's own, and columns that went over the header's width. */
  extra: Record<string, string>;
  changes: Change[];
  issues: Issue[];
}

/** Values come again and again: each kind is read once. */
const reading = (lists: TidyWith['lists'], meaningOf = titleReader(lists.titleWords)) => ({
  name: nameReader(lists.nameParts),
  company: remembered(companyReader(lists.legalForms)),
  title: remembered((input) => parseTitle(input, meaningOf)),
  place: remembered(parsePlace),
  country: remembered((input) => countryCode(plainText(input))),
  city: remembered(tidyPlaceName),
  phone: remembered((country) => remembered((input) => parsePhone(input, country))),
});
type Reading = ReturnType<typeof reading>;

/**
 * Tidies records: what their columns say becomes the standard fields, each change with what was, what is and why.
 *
 * @returns takes the cells of one record, and how each is read
 */
export function tidier(options: TidyWith): (cells: readonly string[], columns: readonly Column[]) => TidyRow {
  const read = reading(options.lists);
  return (cells, columns) => {
    const row: TidyRow = { person: emptyPerson(), extra: {}, changes: [], issues: [] };
    const raw = rawValues(cells, columns, row);
    tidyName(raw, row, read);
    tidyCompanyAndTitle(raw, row, read);
    tidyPlace(raw, row, read);
    tidyContact(raw, row, read, options);
    nameByAddress(row);
    const { person } = row;
    if (!person.firstName && !person.lastName && !person.email && !person.phone && !person.profile) {
      row.issues.push({ code: 'nothing-to-identify', field: '', input: '' });
    }
    return row;
  };
}

/** Who has no name has that which the address says. */
function nameByAddress(row: TidyRow) {
  const { firstName, lastName, email } = row.person;
  const said = firstName || lastName || !email ? null : nameFromEmail(email);
  if (!said) return;
  put(row, 'firstName', '', said.firstName, ['name-from-email']);
  put(row, 'lastName', '', said.lastName, ['name-from-email']);
}

type Raw = Partial<Record<Target, string>>;

function rawValues(cells: readonly string[], columns: readonly Column[], row: TidyRow): Raw {
  const raw: Raw = {};
  const width = widthOf(columns);
  for (let i = 0; i < cells.length; i++) {
    const column = i < width ? columns[i] : undefined;
    const value = cells[i]!.trim();
    if (column) putRaw(raw, column, value, row);
    else if (value !== '') row.extra[`Column ${i + 1}`] = value;
  }
  for (let i = width; i < columns.length; i++)
    putRaw(raw, columns[i]!, derivedValue(cells, columns[i]!.from!).trim(), row);
  return raw;
}

function putRaw(raw: Raw, column: Column, value: string, { extra, issues }: TidyRow) {
  const { target, type = 'text' } = column;
  if (value === '' || target === 'skip') return;
  if (target !== 'own' && raw[target] === undefined) {
    raw[target] = value;
    return;
  }
  const name = target === 'own' ? ownName(column) : column.name;
  const own = target === 'own' ? ownValue(type, value) : value;
  if (own === null) issues.push({ code: 'not-of-its-type', field: name, input: value });
  // Objects keep fields by name, and this one name is not theirs to give.
  extra[name === '__proto__' ? 'proto' : name] = own ?? value;
}

function put(row: TidyRow, field: PersonField, was: string, is: string, why: ChangeCode[]) {
  row.person[field] = is;
  if (was !== is && why.length > 0) row.changes.push({ field, was, is, why });
}

function tidyName(raw: Raw, row: TidyRow, read: Reading) {
  const apart = raw.firstName !== undefined || raw.lastName !== undefined;
  if (apart) {
    for (const field of ['firstName', 'middleName', 'lastName'] as const) {
      const was = raw[field] ?? '';
      if (was === '') continue;
      const name = read.name(field === 'lastName' ? `X ${was}` : was);
      const is =
        field === 'lastName'
          ? [name.middleName, name.lastName].filter(Boolean).join(' ')
          : [name.firstName, name.middleName, name.lastName].filter(Boolean).join(' ');
      put(
        row,
        field,
        was,
        is,
        name.why.filter((code) => code !== 'order-turned'),
      );
      row.person.suffix ||= name.suffix;
      row.person.honorific ||= name.honorific;
    }
  } else if (raw.fullName !== undefined) {
    const was = raw.fullName;
    const [one, ...others] = peopleIn(was);
    if (others.length > 0) {
      row.issues.push({ code: 'two-people', field: 'fullName', input: was });
      row.extra['Other people'] = others.join('; ');
    }
    const name = read.name(one!);
    const plain = [name.firstName, name.middleName, name.lastName].filter(Boolean).join(' ') === was;
    const said = name.why.length > 0 ? name.why : (['name-split'] as const);
    const why: ChangeCode[] = plain ? [] : others.length > 0 ? ['first-of-several', ...name.why] : [...said];
    for (const field of ['firstName', 'middleName', 'lastName'] as const satisfies readonly (keyof PersonName)[]) {
      row.person[field] = name[field];
      if (why.length > 0 && name[field] !== '') row.changes.push({ field, was, is: name[field], why });
    }
    row.person.suffix = name.suffix;
    row.person.honorific = name.honorific;
  }
  if (raw.honorific) row.person.honorific = plainText(raw.honorific);
  if (raw.suffix) row.person.suffix = plainText(raw.suffix);
}

function tidyCompanyAndTitle(raw: Raw, row: TidyRow, read: Reading) {
  if (raw.company !== undefined) {
    const company = read.company(raw.company);
    put(row, 'company', raw.company, company.name, company.why);
    row.person.legalForm = company.legalForm;
  }
  for (const field of ['sector', 'headcount'] as const)
    if (raw[field] !== undefined) put(row, field, raw[field], plainText(raw[field]), ['symbols-removed']);
  if (raw.title !== undefined) {
    const title = read.title(raw.title);
    put(row, 'title', raw.title, title.title, title.why);
    row.person.level = title.level;
    row.person.team = title.team;
  }
  if (raw.note !== undefined) row.person.note = raw.note;
}

function tidyPlace(raw: Raw, row: TidyRow, read: Reading) {
  if (raw.street !== undefined) put(row, 'street', raw.street, read.city(raw.street), ['capitals']);
  if (raw.postcode !== undefined)
    put(row, 'postcode', raw.postcode, plainText(raw.postcode).toUpperCase(), ['capitals']);
  if (raw.earlierAddress !== undefined) row.person.earlierAddress = plainText(raw.earlierAddress);
  if (raw.place !== undefined) {
    const place = read.place(raw.place);
    for (const field of ['city', 'region', 'country'] as const) {
      if (place[field] !== '') put(row, field, raw.place, place[field], ['place-split']);
    }
  }
  if (raw.city !== undefined) put(row, 'city', raw.city, read.city(raw.city), ['capitals']);
  if (raw.region !== undefined) {
    const place = read.place(raw.region);
    put(row, 'region', raw.region, place.region || read.city(raw.region), ['place-split']);
    row.person.country ||= place.country;
  }
  if (raw.country !== undefined) {
    const code = read.country(raw.country);
    put(row, 'country', raw.country, code || plainText(raw.country), ['country-code']);
  }
}

function tidyContact(raw: Raw, row: TidyRow, read: Reading, { phoneCountry, lists }: TidyWith) {
  const wrong = (code: Issue['code'], field: string, input: string) => row.issues.push({ code, field, input });
  /** The first of the values of a cell; the others become a field of the person's own. */
  const firstOf = (cell: string, name: string, is: (part: string) => boolean) => {
    const { first, others } = several(cell, is);
    if (others.length > 0) row.extra[name] = [row.extra[name], ...others].filter(Boolean).join('; ');
    return { first, why: others.length > 0 ? (['first-of-several'] as const) : [] };
  };
  if (raw.email !== undefined) {
    const { first, why } = firstOf(raw.email, 'Other emails', (part) => normaliseEmail(part) !== '');
    const email = normaliseEmail(first);
    if (email === '') wrong('not-an-email', 'email', raw.email);
    put(row, 'email', raw.email, email, [...why, 'email-normalised']);
  }
  if (raw.website !== undefined) {
    const { first, why } = firstOf(raw.website, 'Other websites', (part) => canonicalLink(part) !== '');
    const link = canonicalLink(first);
    const domain = link && registrableDomain(link.split('/')[0]!);
    if (!domain) wrong('not-a-link', 'domain', raw.website);
    put(row, 'domain', raw.website, domain, [...why, 'domain-from-link']);
  }
  if (!row.person.domain && row.person.email) {
    const host = row.person.email.slice(row.person.email.indexOf('@') + 1);
    if (!isFreeMail(host, lists.freeMail)) put(row, 'domain', '', registrableDomain(host), ['domain-from-email']);
  }
  if (raw.profile !== undefined) {
    const link = canonicalLink(raw.profile);
    if (!link) wrong('not-a-link', 'profile', raw.profile);
    put(row, 'profile', raw.profile, link, ['canonical-link']);
  }
  if (raw.phone !== undefined) {
    const own = row.person.country.length === 2 ? row.person.country : phoneCountry;
    const phoneOf = (cell: string) => {
      const near = read.phone(own)(cell);
      return near.e164 ? near : read.phone(phoneCountry)(cell);
    };
    const { first, why } = firstOf(raw.phone, 'Other phones', (part) => phoneOf(part).e164 !== '');
    const phone = phoneOf(first);
    if (!phone.e164) wrong(/E\+?\d/i.test(raw.phone) ? 'digits-lost' : 'not-a-phone', 'phone', raw.phone);
    put(row, 'phone', raw.phone, phone.e164, [...why, 'e164']);
  }
}

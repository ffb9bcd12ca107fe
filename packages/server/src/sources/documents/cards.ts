import ICAL from 'ical.js';
import { LONGEST_CELL, type RawRow } from '@sieve/core';
import { linesOf } from './lines';

const AT_ONCE = 500;
/** Characters of a card, its picture included; what is longer is none. */
const LONGEST_CARD = 8 * 1024 * 1024;

type Value = string | number | boolean | (string | string[])[];
type Property = [name: string, parameters: Record<string, unknown>, type: string, ...values: Value[]];

/** What a card says, as columns: the first address, phone and site in a column of their own, the others beside. */
const COLUMNS = [
  'Full name',
  'Honorific',
  'First name',
  'Middle name',
  'Last name',
  'Suffix',
  'Job title',
  'Company',
  'Email',
  'Other emails',
  'Phone',
  'Other phones',
  'Website',
  'Other websites',
  'Street',
  'City',
  'Region',
  'Postcode',
  'Country',
  'Note',
];

/**
 * The cards of a vCard file (RFC 6350, and version 3 before it), a row each; `line` is where the card begins. One that cannot be read
 * spoils itself, never the file.
 */
export async function* cardRows(file: string, { encoding }: { encoding: string }): AsyncGenerator<RawRow[]> {
  let rows: RawRow[] = [{ line: 0, cells: COLUMNS }];
  for await (const { line, text } of cards(file, encoding)) {
    const cells = readCard(text);
    rows.push(cells ? { line, cells } : { line, cells: [text.slice(0, LONGEST_CELL)], problem: 'record-unreadable' });
    if (rows.length < AT_ONCE) continue;
    yield rows;
    rows = [];
  }
  yield rows;
}

/** Each card as it stands in the file; what stands between cards is a card that cannot be read. */
async function* cards(file: string, encoding: string): AsyncGenerator<{ line: number; text: string }> {
  let card: string[] = [];
  let from = 0;
  let length = 0;
  for await (const { line, text } of linesOf(file, encoding)) {
    if (card.length > 0 && (length > LONGEST_CARD || /^BEGIN:VCARD\s*$/i.test(text))) {
      yield { line: from, text: card.join('\r\n') };
      card = [];
    }
    if (card.length === 0) {
      if (text.trim() === '') continue;
      from = line;
      length = 0;
    }
    card.push(text);
    length += text.length;
    if (!/^END:VCARD\s*$/i.test(text)) continue;
    yield { line: from, text: card.join('\r\n') };
    card = [];
  }
  if (card.length > 0) yield { line: from, text: card.join('\r\n') };
}

/** Null for what is no card. The library throws for it, sometimes only when a value is looked at. */
function readCard(text: string): string[] | null {
  try {
    const parsed = ICAL.parse(text) as unknown as [string, Property[]] | [string, Property[]][];
    const [kind, properties] = (typeof parsed[0] === 'string' ? parsed : parsed[0]) as [string, Property[]];
    return kind === 'vcard' ? cellsOf(properties) : null;
  } catch {
    return null;
  }
}

function cellsOf(properties: readonly Property[]): string[] {
  const of = (name: string) => preferred(properties.filter(([known]) => known === name || known.endsWith(`.${name}`)));
  const values = (name: string) =>
    of(name)
      .flatMap(([, , , ...all]) => all.map((value) => plain(value)))
      .filter(Boolean);
  const parts = (name: string): string[] => {
    const value = of(name)[0]?.[3];
    return value === undefined ? [] : (Array.isArray(value) ? value : [value]).map((part) => plain(part));
  };
  const [lastName, firstName, middleName, honorific, suffix] = parts('n');
  const [box, extra, street, city, region, postcode, country] = parts('adr');
  const [email = '', ...emails] = values('email').map((one) => one.replace(/^mailto:/i, ''));
  const [phone = '', ...phones] = values('tel').map((one) => one.replace(/^tel:/i, ''));
  const [site = '', ...sites] = values('url');
  return [
    values('fn')[0] ?? '',
    honorific ?? '',
    firstName ?? '',
    middleName ?? '',
    lastName ?? '',
    suffix ?? '',
    (values('title')[0] ?? values('role')[0]) || '',
    parts('org')[0] ?? '',
    email,
    emails.join('; '),
    phone,
    phones.join('; '),
    site,
    sites.join('; '),
    [box, extra, street].filter(Boolean).join(', '),
    city ?? '',
    region ?? '',
    postcode ?? '',
    country ?? '',
    values('note').join(' '),
  ];
}

/** A semicolon may be escaped in any text (RFC 6350 3.4); the library leaves it so. */
const plain = (value: Value): string =>
  (Array.isArray(value) ? value.flat().filter(Boolean).join(' ') : String(value)).replaceAll('\\;', ';').trim();

/** Those that are preferred first: `PREF=1` (RFC 6350 5.3), or among the types of version 3. */
function preferred(properties: readonly Property[]): Property[] {
  const rank = ([, { pref, type }]: Property) =>
    pref !== undefined ? Number(pref) : [type].flat().some((one) => /^pref$/i.test(String(one))) ? 1 : 101;
  return [...properties].sort((a, b) => rank(a) - rank(b));
}

import {
  fieldsOf,
  findRecordSets,
  headingOf,
  identityOf,
  nextLinks,
  nextPage,
  pathOf,
  previewOf,
  readPage,
  recogniseColumns,
  REST,
  uniqueNames,
  type HarvestField,
  type Page,
  type RecordSet,
} from '@sieve/core';
import { TARGET_WORDS, type PageSet, type WebPage } from '@sieve/contract';
import { AppError } from '../errors';
import type { Db } from '../db/open';
import { readPageText, resolver } from '../sources/documents/page';
import { rememberedNext } from './store';

const MOST_SETS = 12;
const SHOWN_ROWS = 50;
const DRAWN_ROWS = 8;
const SURE_ENOUGH = 0.6;
/** Names that say where something stands, and not what it is. */
const SAYS_NOTHING = /^(Text|Link|Image|Column)( link| image| image text)?( \d+)?$/;

export interface ToLookAt {
  file: string;
  name: string;
  /** '' when only the page itself can say it. */
  address: string;
}

interface Opened {
  page: Page;
  address: string;
  bytes: number;
  sets: RecordSet[];
  resolve: (link: string) => string;
}

async function open({ file, name, address: said }: ToLookAt): Promise<Opened> {
  const html = await readPageText(file);
  const page = readPage(html);
  const address = said || page.address;
  const sets = findRecordSets(page).slice(0, MOST_SETS);
  if (sets.length === 0) throw new AppError('no-records', { name });
  return { page, address, bytes: Buffer.byteLength(html), sets, resolve: resolver(page, address) };
}

/** The fields of a set, with the one for what stands in no other, which pages after may need. */
export function harvestFields(set: RecordSet, resolve: (link: string) => string): HarvestField[] {
  const fields = fieldsOf(set, resolve);
  return fields.some(({ key }) => key === REST.key)
    ? fields
    : [...fields, { ...REST, values: set.records.map(() => '') }];
}

/** The sets of records of a page, best first, with what their columns seem to be, and what may be the next page. */
export async function lookAtPage(db: Db, what: ToLookAt, companyWords: readonly string[]): Promise<WebPage> {
  const { page, address, bytes, sets, resolve } = await open(what);
  return {
    address,
    title: page.title,
    bytes,
    sets: sets.map((set) => viewOf(set, resolve, companyWords)),
    next: nextLinks(page, address, resolve),
    followed: nextPage(page, address, resolve, null),
    remembered: rememberedNext(db, address),
  };
}

function viewOf(set: RecordSet, resolve: (link: string) => string, companyWords: readonly string[]): PageSet {
  const fields = harvestFields(set, resolve);
  const rows = Array.from({ length: Math.min(SHOWN_ROWS, set.records.length) }, (_, i) =>
    fields.map(({ values }) => values[i] ?? ''),
  );
  const recognised = recogniseColumns(
    fields.map(({ name }) => name),
    rows,
    companyWords,
  );
  const names = uniqueNames(
    recognised.map(({ name, target, sure }) =>
      SAYS_NOTHING.test(name) && sure >= SURE_ENOUGH && target !== 'own' && target !== 'skip'
        ? TARGET_WORDS[target]
        : name,
    ),
  );
  return {
    count: set.records.length,
    heading: headingOf(set),
    path: pathOf(set),
    identity: identityOf(fields),
    fields: fields.map(({ key, values }, i) => ({
      key,
      name: names[i]!,
      target: key === REST.key ? ('own' as const) : recognised[i]!.target,
      filled: values.filter(Boolean).length,
      lengths: values.slice(0, DRAWN_ROWS).map(({ length }) => length),
    })),
    rows,
  };
}

/** A page as it can be shown, one of its sets outlined. @param next the link that is followed */
export async function previewPage(what: ToLookAt, chosen: number, next: string): Promise<string> {
  const { page, sets, resolve } = await open(what);
  const set = sets[chosen] ?? sets[0]!;
  return previewOf(page, { set, fields: fieldsOf(set, resolve), next, resolve });
}

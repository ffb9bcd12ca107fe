import {
  zoneOf,
  type ChargesQuery,
  type ExportLayout,
  type FirmQuery,
  type GroupQuery,
  type LedgerQuery,
  type RowQuery,
  type Settings,
  type Sought,
  type TypedContact,
  type WordChangesBody,
} from '@sieve/contract';
import type { CompanyOptions, ScreenOptions } from '@sieve/core';
import { openDb, type Db } from '../db/open';
import { failure, type Failure } from '../errors';
import { anybodyGoes } from '../exports/chosen';
import { exportPreview } from '../exports/preview';
import { lookAtPage, previewPage, type ToLookAt } from '../harvests/page-look';
import { firmEffect } from '../sieve/firm-effect';
import { firmPairs } from '../sieve/firm-pairs';
import { firmPage, firmView } from '../sieve/firms';
import { estimateFor, phoneEstimate } from '../sieve/estimate';
import { chargesFile, ledgerView } from '../ledger/ledger';
import { lookupOrders } from '../sieve/lookup-orders';
import { verdictCounts } from '../sieve/verdict-counts';
import { verdictList } from '../sieve/verdict-list';
import { hitRates } from '../sieve/hit-rates';
import { nextValid } from '../sieve/next-valid';
import { heldAlready, lookUp } from '../sieve/held-contacts';
import { personInFull } from '../sieve/person';
import { pairsToJudge } from '../sieve/pairs-to-judge';
import { companyPage, contactView, findContacts, contactGroups, rowPage } from '../sieve/rows';
import { inspectFile, type ToInspect } from '../sources/inspect';
import { columnsOf } from '../sources/read-anew';
import { screenEffect } from '../sieve/screen-effect';
import { wordChanges } from '../sieve/word-changes';
import { sourceRows } from '../sources/store';

/** Looks that may take minutes and much memory. */
const DEEP_LOOKS = {
  file: (db: Db, { lists }: Settings, what: ToInspect) => inspectFile(db, what, lists),
  page: (db: Db, { lists }: Settings, what: ToLookAt) => lookAtPage(db, what, lists.companyWords),
  preview: (_: Db, __: Settings, what: ToLookAt, set: number, next: string) => previewPage(what, set, next),
  export: (db: Db, settings: Settings, jobId: number, layout: ExportLayout, now: number) =>
    exportPreview(db, jobId, layout, now, zoneOf(settings)),
  anybodyGoes: (db: Db, _: Settings, jobId: number, layout: ExportLayout, now: number) =>
    anybodyGoes(db, jobId, layout, now),
};

/** Looks at what was sifted: a screen waits for them. */
const QUICK_LOOKS = {
  rows: (db: Db, _: Settings, jobId: number, query: RowQuery) => rowPage(db, jobId, query),
  contact: (db: Db, { lists }: Settings, jobId: number, contact: number) => contactView(db, jobId, contact, lists),
  person: (db: Db, settings: Settings, jobId: number, contact: number) => personInFull(db, jobId, contact, settings),
  pairs: (db: Db, { lists }: Settings, jobId: number, most: number) => pairsToJudge(db, jobId, most, lists),
  hitRates: (db: Db, settings: Settings, jobId: number, now: number) => hitRates(db, jobId, settings, now),
  nextValid: (db: Db, settings: Settings, jobId: number, now: number) => nextValid(db, jobId, settings, now),
  groups: (db: Db, _: Settings, jobId: number, query: GroupQuery) => contactGroups(db, jobId, query),
  sourceColumns: (db: Db, { lists }: Settings, jobId: number, sourceId: number) =>
    columnsOf(db, jobId, sourceId, lists),
  screenEffect: (db: Db, { lists }: Settings, jobId: number, options: ScreenOptions, now: number) =>
    screenEffect(db, jobId, options, lists, now),
  wordChanges: (db: Db, { lists }: Settings, then: WordChangesBody, most: number) => wordChanges(db, lists, then, most),
  companies: (db: Db, _: Settings, jobId: number, query: Pick<RowQuery, 'q' | 'offset' | 'limit'>) =>
    companyPage(db, jobId, query),
  firms: (db: Db, _: Settings, jobId: number, query: FirmQuery) => firmPage(db, jobId, query),
  firmEffect: (db: Db, _: Settings, jobId: number, step: string, options: CompanyOptions) =>
    firmEffect(db, jobId, step, options),
  firmPairs: (db: Db, _: Settings, jobId: number, step: string, most: number) => firmPairs(db, jobId, step, most),
  firm: (db: Db, _: Settings, jobId: number, step: string, key: string) => firmView(db, jobId, step, key),
  heldAlready: (db: Db, { lists }: Settings, jobId: number | null, typed: TypedContact) =>
    heldAlready(db, jobId, typed, lists),
  verdictCounts: (db: Db, _: Settings, jobId: number) => verdictCounts(db, jobId),
  ledger: (db: Db, settings: Settings, query: LedgerQuery) => ledgerView(db, settings, query, Date.now()),
  charges: (db: Db, settings: Settings, query: ChargesQuery) => chargesFile(db, settings, query),
  lookupOrders: (db: Db, settings: Settings, order: readonly string[], of: Sought) =>
    lookupOrders(db, settings, order, of, Date.now()),
  verdicts: (db: Db, _: Settings, jobId: number) => [...verdictList(db, jobId)].join(''),
  lookUp: (db: Db, _: Settings, q: string) => lookUp(db, q),
  contacts: (db: Db, _: Settings, q: string, most: number) => findContacts(db, q, most),
  estimate: (db: Db, settings: Settings, jobId: number, now: number, contacts?: number) =>
    estimateFor(db, jobId, settings, now, contacts),
  phoneEstimate: (db: Db, settings: Settings, jobId: number, now: number) => phoneEstimate(db, jobId, settings, now),
  sources: (db: Db, _: Settings, jobId: number) => sourceRows(db, jobId),
};

/** What can be looked at beside the server's own thread; nothing of it writes. */
const LOOKS = { ...DEEP_LOOKS, ...QUICK_LOOKS };
type Looks = typeof LOOKS;
export type DeepLook = keyof typeof DEEP_LOOKS;
export type Look = keyof Looks;
export type LookArgs<K extends Look> = Looks[K] extends (db: Db, settings: Settings, ...args: infer A) => unknown
  ? A
  : never;
export type Seen<K extends Look> = Awaited<ReturnType<Looks[K]>>;
export interface LookTask {
  dbFile: string;
  settings: Settings;
  look: Look;
  args: unknown[];
}
export type LookEnd = { seen: unknown } | { failed: Failure };

/** Stays open from one look to the next, with the pages that it read. */
let open: Db | undefined;

export default async function look({ dbFile, settings, look, args }: LookTask): Promise<LookEnd> {
  try {
    const db = (open ??= openDb(dbFile));
    const see = LOOKS[look] as (db: Db, settings: Settings, ...args: unknown[]) => unknown;
    // In one transaction no outcome goes that is being looked at.
    const seen = look in QUICK_LOOKS ? db.outcomes.transaction(see)(db, settings, ...args) : see(db, settings, ...args);
    return { seen: await seen };
  } catch (error) {
    return { failed: failure(error) };
  }
}

import {
  appendEmail,
  appendPhone,
  callSuppressor,
  freshnessOf,
  personKeys,
  stepIn,
  suppressor,
  verify,
  type ExportRow,
  type Firm,
  type Judgement,
  type KnownPhone,
  type Person,
} from '@sieve/core';
import { PASS_WORDS, type ExportLayout, type ExportPreview } from '@sieve/contract';
import type { Db } from '../db/open';
import { goneBefore, type Entry } from '../register/register';
import { jobRow } from '../jobs/store';
import { suppressionList } from '../register/suppressions';
import { shownOutcome } from '../sieve/outcomes';
import { fromColumns, knownPerson, type ContactColumns } from '../sieve/stored-contact';

export interface ChosenContact {
  id: number;
  recordIds: number[];
  person: Person;
  extra: Record<string, string>;
  /** What is known of the address; 'none' without one. */
  verdict: Judgement['verdict'] | 'none';
  reason: string;
  via: string;
  profileSure: number | null;
  firm: Firm | null;
  phone: KnownPhone | null;
  sources: string;
  /** By what they are known who leave. */
  keys: string[];
}

interface Candidate extends ChosenContact {
  /** Under which choice of verdicts it goes: an invalid address that a person kept goes with those that nobody is sure of. */
  choice: ExportLayout['verdicts'][number];
  exportedBefore: boolean;
  suppressed: boolean;
  stale: boolean;
}

/** Who has stopped for one of these where addresses are looked for can still go, with what is known of the address. */
const GOES_ALL_THE_SAME = ['verdict', 'no-address-found', 'no-name-or-domain', 'no-answer-yet', 'no-longer-fresh'];

/** By what somebody is known who leaves: as the register knows them, and by their records. */
const leavingKeys = ({ recordIds, person }: Pick<ChosenContact, 'recordIds' | 'person'>): string[] => [
  ...recordIds.map((id) => `record:${id}`),
  ...personKeys(person),
];

export const leavingEntries = (contacts: readonly ChosenContact[]): Entry[] =>
  contacts.map(({ id, keys }) => ({ item: id, keys }));

/** Everybody who could go: contacts that passed, or that only their verdict or the lack of an address stopped. */
function* candidates(db: Db, jobId: number, now: number): Generator<Candidate> {
  const gone = goneBefore(db.register);
  const list = suppressionList(db, now);
  const [suppressed, notCalled] = [suppressor(list), callSuppressor(list)];
  const { sieve } = jobRow(db, jobId)!;
  const fresh = freshnessOf(sieve).agesMs;
  // Who waits for an answer about their company or profile is not through the screening.
  const addresses = sieve.findIndex(({ kind }) => kind === appendEmail.kind || kind === verify.kind);
  // Who only waits for a phone that they can do without goes too.
  const { options } = stepIn(sieve, appendPhone);
  const phones = options.needed ? -1 : sieve.findIndex(({ kind }) => kind === appendPhone.kind);
  const rows = db.outcomes
    .prepare(
      `SELECT * FROM ${shownOutcome(db, jobId).contacts}
       WHERE state = 'pass' OR (stop >= ? AND code IN (${GOES_ALL_THE_SAME.map(() => '?').join(', ')}))
         OR (stop = ? AND state = 'waits')`,
    )
    .raw()
    .iterate(addresses, ...GOES_ALL_THE_SAME, phones) as Iterable<ContactColumns>;
  for (const columns of rows) {
    const { id, recordIds, person, extra, verdict, reason, via, found, firm, phone, sources, askedAt, state } =
      fromColumns(columns);
    if (verdict === 'invalid' && state !== 'pass') continue;
    const keys = leavingKeys({ recordIds, person: knownPerson(columns) });
    const isSuppressed = suppressed(person) !== undefined;
    const callable = person.phone === '' || !notCalled(person);
    const known = person.email === '' ? 'none' : verdict === '' ? 'unknown' : verdict;
    yield {
      id,
      recordIds,
      person: callable ? person : { ...person, phone: '' },
      extra,
      verdict: known,
      choice: known === 'invalid' ? 'unknown' : known,
      reason,
      via,
      profileSure: found.profile ?? null,
      firm,
      phone: callable ? phone : null,
      sources,
      keys,
      exportedBefore: gone(keys),
      suppressed: isSuppressed,
      stale: askedAt > 0 && now - askedAt > fresh,
    };
  }
}

const goes = (c: Candidate, layout: ExportLayout) =>
  layout.verdicts.includes(c.choice) && !c.suppressed && !c.stale && !(layout.onlyNew && c.exportedBefore);

/** By name, so that the export batches are the same each time; sorted here, since SQLite would sort whole rows. */
const byName = (a: ChosenContact, b: ChosenContact): number =>
  compare(a.person.lastName, b.person.lastName) || compare(a.person.firstName, b.person.firstName) || a.id - b.id;
const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

export const chosenContacts = (db: Db, jobId: number, layout: ExportLayout, now: number): ChosenContact[] =>
  [...candidates(db, jobId, now)].filter((c) => goes(c, layout)).sort(byName);

/** Whether an export would hold anybody. */
export function anybodyGoes(db: Db, jobId: number, layout: ExportLayout, now: number): boolean {
  for (const c of candidates(db, jobId, now)) if (goes(c, layout)) return true;
  return false;
}

/** Who goes and who is held back, from the same rows as the export itself. */
export function exportCounts(
  db: Db,
  jobId: number,
  layout: ExportLayout,
  now: number,
): { chosen: ChosenContact[] } & Pick<ExportPreview, 'counts' | 'heldBack' | 'ownFields'> {
  const counts: ExportPreview['counts'] = { valid: 0, risky: 0, unknown: 0, none: 0 };
  const heldBack: ExportPreview['heldBack'] = { exportedBefore: 0, risky: 0, suppressed: 0, stale: 0 };
  const own = new Set<string>();
  const chosen: ChosenContact[] = [];
  for (const c of candidates(db, jobId, now)) {
    counts[c.choice]++;
    for (const name of Object.keys(c.extra)) own.add(name);
    if (goes(c, layout)) chosen.push(c);
    else if (c.suppressed) heldBack.suppressed++;
    else if (c.stale) heldBack.stale++;
    else if (!layout.verdicts.includes(c.choice)) heldBack.risky += c.choice === 'risky' ? 1 : 0;
    else heldBack.exportedBefore++;
  }
  return { chosen: chosen.sort(byName), counts, heldBack, ownFields: [...own].sort() };
}

export const toExportRow = (c: ChosenContact): ExportRow => ({
  person: c.person,
  extra: c.extra,
  verdict: c.verdict,
  verdictReason: c.reason,
  emailVia: c.via,
  profileSure: c.profileSure === null ? '' : c.profileSure.toFixed(2),
  websiteSays: c.firm?.answer === 'unclear' ? 'cannot tell' : (c.firm?.answer ?? ''),
  growth: String(c.firm?.growth ?? ''),
  technology: c.firm?.technology.join('; ') ?? '',
  hiring: c.firm?.hiring.join('; ') ?? '',
  topics: c.firm?.topics?.join('; ') ?? '',
  phoneKind: c.phone?.kind ?? '',
  phoneFoundBy: c.phone?.pass ? PASS_WORDS[c.phone.pass] : '',
  phoneSure: c.phone ? c.phone.sure.toFixed(2) : '',
  otherPhones: c.phone?.others.join('; ') ?? '',
  sources: c.sources,
});

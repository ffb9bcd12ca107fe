import { SPEAKS } from '@sieve/core/steps/profile/options';
import { BRIEF_PARTS, groupBy } from '@sieve/core/steps/screen/options';
import { wordLists } from '@sieve/core/model/word-lists';
import * as z from 'zod';
import { at, change, company, count, evidence, fate, firm, id, issue, knownPhone, person, personField } from './model';
import { left } from './ledger';
import { sought } from './sought';

export const SORTS = [
  'id',
  'lastName',
  'title',
  'company',
  'city',
  'email',
  'verdict',
  'step',
  'records',
  'own',
] as const;

export const rowQuery = z.object({
  step: z.string().max(60).default('screen'),
  fate: z.enum(['pass', 'aside', 'look', 'waits']).default('pass'),
  q: z.string().trim().max(200).default(''),
  /** Only those that stopped for this reason: a code, `rule-` and the number of a rule, or a verdict, as a step's `why` counts them. */
  why: z.string().max(60).optional(),
  sort: z.enum(SORTS).default('id'),
  desc: z.stringbool().default(false),
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100),
  /** A field of the person's own that is shown, and sorted by as 'own'. */
  own: z.string().max(200).optional(),
  /** A contact whose place in the list is asked for too. */
  placeOf: z.coerce.number().int().optional(),
});
export type RowQuery = z.output<typeof rowQuery>;

/** One row of the grid. */
export const contactRow = z.object({
  id,
  name: z.string(),
  firstName: z.string(),
  lastName: z.string(),
  title: z.string(),
  company: z.string(),
  place: z.string(),
  domain: z.string(),
  email: z.string(),
  phone: z.string(),
  /** What is known of their phone; null when that was not looked at. */
  knownPhone: knownPhone.nullable(),
  profile: z.string(),
  /** How likely the profile is theirs, 0 to 1; null for one that came with the records, or none. */
  profileSure: z.number().nullable(),
  verdict: z.string(),
  reason: z.string(),
  /** When its verdict was given; 0 when nothing was asked. */
  askedAt: at,
  via: z.string(),
  source: z.string(),
  records: count,
  /** The value of the own field that was asked for. */
  own: z.string(),
  fate,
});
export type ContactRow = z.output<typeof contactRow>;

export const rowPage = z.object({
  total: count,
  rows: z.array(contactRow),
  /** How many stand before the contact that was asked for; null when it is not in the list, or none was. */
  place: count.nullable(),
});
export type RowPage = z.output<typeof rowPage>;

/** One record as the inspector shows it. */
export const recordView = z.object({
  id,
  source: z.string(),
  line: z.int(),
  cells: z.array(z.object({ name: z.string(), value: z.string() })),
  person,
  changes: z.array(change),
  issues: z.array(issue),
});
export type RecordView = z.output<typeof recordView>;

/** A profile of the directory that could be somebody's. */
export const possibleProfile = z.object({
  link: z.string(),
  name: z.string(),
  title: z.string(),
  company: z.string(),
  past: z.array(z.string()),
  place: z.string(),
  /** How likely it is theirs, 0 to 1. */
  chance: z.number(),
  /** What was compared, each from 1 (different) to 4 (the same). */
  speaks: z.array(z.object({ field: z.enum(SPEAKS), level: z.int().min(1).max(4) })),
});
export type PossibleProfile = z.output<typeof possibleProfile>;

export const briefPart = z.object({
  part: z.enum(BRIEF_PARTS),
  fit: z.enum(['yes', 'near', 'no', 'unknown']),
  is: z.string(),
  near: z.string(),
});

export const contactView = contactRow.extend({
  person,
  extra: z.record(z.string(), z.string()),
  from: z.partialRecord(personField, z.int()),
  mergeChance: z.number(),
  alternatives: z.array(z.string()),
  /** Fields taken from a profile, with how sure it is theirs. */
  found: z.partialRecord(personField, z.number()),
  /** Which service filled a field that no record holds, by its id. */
  filledBy: z.partialRecord(personField, z.string()),
  /** What is known of their company; null when that was not looked at. */
  firm: firm.nullable(),
  /** Profiles that could be theirs while none is taken, the likeliest first. */
  profiles: z.array(possibleProfile),
  /** How they fit each part of the job's brief. */
  brief: z.array(briefPart),
  evidence: z.array(z.object({ a: id, b: id, chance: z.number(), evidence: z.array(evidence) })),
  recordIds: z.array(id),
  recordViews: z.array(recordView),
});
export type ContactView = z.output<typeof contactView>;

const pair = z.object({ a: id, b: id });

/** Records that are one person or may be, and the pairs that hold them together; a doubtful pair is not `merged`. */
export const pairGroup = z.object({
  records: z.array(z.object({ id, name: z.string(), company: z.string(), source: z.string(), line: z.int() })),
  links: z.array(pair.extend({ chance: z.number(), merged: z.boolean() })),
});
export type PairGroup = z.output<typeof pairGroup>;

export const pairView = z.object({
  a: recordView,
  b: recordView,
  chance: z.number(),
  evidence: z.array(evidence),
  /** Other doubtful pairs of which every field shows the same, and the names of some. */
  alike: z.array(pair),
  alikeNames: z.array(z.string()),
  /** All that hang together with the pair; null where it is but the two. */
  group: pairGroup.nullable(),
});
export type PairView = z.output<typeof pairView>;

/** Somebody in another job who may be one of this one; `chance` null where too little is known to say. */
export const personElsewhere = z.object({
  jobId: id,
  job: z.string(),
  contact: id,
  chance: z.number().nullable(),
  person,
});

/** A contact that another job may hold, beside the likeliest there; `step` is where it waits for a look. */
export const pairElsewhere = z.object({
  contact: id,
  step: z.string(),
  recordIds: z.array(id),
  person,
  there: personElsewhere,
  evidence: z.array(evidence),
});
export type PairElsewhere = z.output<typeof pairElsewhere>;

/** Pairs to judge, of this job and then with other jobs, either least certain first, and what was taught by those that were. */
export const pairsView = z.object({
  total: count,
  pairs: z.array(z.union([pairView, pairElsewhere])),
  /** Weights that judged pairs changed most, in bits. */
  taught: z.array(z.object({ field: z.string(), level: z.int(), bits: z.number() })),
});
export type PairsView = z.output<typeof pairsView>;

export const groupQuery = z.object({ step: z.string().max(60), by: groupBy });
export type GroupQuery = z.output<typeof groupQuery>;

/** Those of a job who share a value of a field. */
export const contactGroup = z.object({
  value: z.string(),
  count,
  aside: count,
  fate: z.enum(['keep', 'aside', '']),
});
export type ContactGroup = z.output<typeof contactGroup>;

const between = z.object({ low: count, likely: count, high: count });

/** How much of what a search or another source brought passes the screen. */
export const hitRate = z.object({
  name: z.string(),
  searchId: id.nullable(),
  rows: count,
  /** People who came to the screen by it, how many pass, and between which shares that may lie by chance (95 %). */
  came: count,
  fits: count,
  low: z.number(),
  high: z.number(),
  /** How many of the others stopped, by reason, as a step's `why` counts them. */
  why: z.record(z.string(), count),
  /** What the search could leave out, each on top of the one before, and the search so. */
  tighter: z.array(
    z.object({
      field: z.enum(['title', 'company', 'sector', 'region', 'country']),
      text: z.string(),
      misfits: count,
      fits: count,
      q: z.string(),
    }),
  ),
  /** More rows like these that bring the valid emails which the job misses; null where none is missing, or none came of it. */
  toGo: between.nullable(),
  /** Of those who came by it first and pass: whose email was found or looked for, and how many are valid; and what was paid for all who came by it first. */
  asked: count,
  valid: count,
  spentCents: z.number(),
  /** Cents for each valid email of it, with the range by chance; null while none was paid for. */
  eachCents: z.object({ low: z.number(), likely: z.number(), high: z.number() }).nullable(),
  /** When those rows are here at the pace that is set, and who of them passes is looked up, in ms since 1970; null for what is not pulled. */
  doneAt: z.number().nullable(),
});
export type HitRate = z.output<typeof hitRate>;

/** How many come to the screen, pass it, and are taken by each of its rules. */
export const screenEffect = z.object({ came: count, pass: count, rules: z.array(count) });
export type ScreenEffect = z.output<typeof screenEffect>;

/** One of the word lists as it would be; and the values that it would change, over all jobs, the most common first. */
const { titleWords, legalForms, nameParts } = wordLists.def.shape;
export const wordChangesBody = z.union([
  z.strictObject({ titleWords: titleWords.unwrap() }),
  z.strictObject({ legalForms: legalForms.unwrap() }),
  z.strictObject({ nameParts: nameParts.unwrap() }),
]);
export type WordChangesBody = z.output<typeof wordChangesBody>;
export const wordChanges = z.object({
  contacts: count,
  values: z.array(z.object({ value: z.string(), count, was: z.string(), is: z.string() })),
});
export type WordChanges = z.output<typeof wordChanges>;

export const companyQuery = rowQuery.pick({ q: true, offset: true, limit: true });
/** A company of a job, with how many of its contacts work there. */
export const companyRow = z.object({
  id,
  company,
  extra: z.record(z.string(), z.string()),
  source: z.string(),
  records: count,
  contacts: count,
});
export type CompanyRow = z.output<typeof companyRow>;
export const companyPage = z.object({ total: count, rows: z.array(companyRow) });
export type CompanyPage = z.output<typeof companyPage>;

const byVerdict = z.object({ name: z.string(), valid: count, risky: count, invalid: count, unknown: count });
/** Addresses of a job by verdict: of the domains and of the sources with the most of them; and how many verdicts get too old within which hour, by its end. */
export const verdictCounts = z.object({
  domains: z.array(byVerdict),
  sources: z.array(byVerdict),
  freshUntil: z.array(z.object({ at: z.number(), count })),
});
export type VerdictCounts = z.output<typeof verdictCounts>;

export const estimateQuery = z.object({ of: sought });

export const askEstimate = z.object({
  contacts: count,
  valid: z.object({ low: count, likely: count, high: count }),
  cost: z.object({ lowCents: z.number(), likelyCents: z.number(), highCents: z.number(), mostCents: z.number() }),
  seconds: z.number(),
  budgetMayEnd: z.boolean(),
  leftCents: z.number(),
  /** Whose budget says what is left. */
  leftOf: left.shape.of,
  /** What one contact can cost at most. */
  mostEachCents: z.number(),
  /** What it rests on: lookups that were made, and contacts whose asking was timed. */
  rests: z.object({ lookups: count, timed: count }),
  finders: z.array(z.string()),
});
export type AskEstimate = z.output<typeof askEstimate>;

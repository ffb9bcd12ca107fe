import type { Change, Evidence, Fate, Issue, Person, PersonField } from '@sieve/core';
import * as z from 'zod';

export const SORTS = ['id', 'lastName', 'title', 'company', 'city', 'email', 'verdict', 'step', 'records'] as const;

export const rowQuery = z.object({
  step: z.enum(['tidy', 'match', 'screen', 'append', 'verify']).default('screen'),
  fate: z.enum(['pass', 'aside', 'look', 'waits']).default('pass'),
  q: z.string().trim().max(200).default(''),
  sort: z.enum(SORTS).default('id'),
  desc: z.stringbool().default(false),
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100),
});
export type RowQuery = z.output<typeof rowQuery>;

/** One row of the grid. */
export interface ContactRow {
  id: number;
  name: string;
  firstName: string;
  lastName: string;
  title: string;
  company: string;
  place: string;
  domain: string;
  email: string;
  phone: string;
  verdict: string;
  reason: string;
  via: string;
  source: string;
  records: number;
  fate: Fate;
}

export interface RowPage {
  total: number;
  rows: ContactRow[];
}

/** One record as the inspector shows it. */
export interface RecordView {
  id: number;
  source: string;
  line: number;
  cells: { name: string; value: string }[];
  person: Person;
  changes: Change[];
  issues: Issue[];
}

export interface ContactView extends ContactRow {
  person: Person;
  extra: Record<string, string>;
  from: Partial<Record<PersonField, number>>;
  mergeChance: number;
  alternatives: string[];
  evidence: { a: number; b: number; chance: number; evidence: Evidence[] }[];
  recordIds: number[];
  records: number;
  recordViews: RecordView[];
}

export interface PairView {
  a: RecordView;
  b: RecordView;
  chance: number;
  evidence: Evidence[];
}

export interface TitleGroup {
  title: string;
  count: number;
  aside: number;
  fate: 'keep' | 'aside' | '';
}

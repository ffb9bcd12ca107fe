import * as z from 'zod';

/** What a directory can be searched for. */
export const SUBJECTS = ['people', 'companies', 'postings'] as const;
export type Subject = (typeof SUBJECTS)[number];

/** text: phrases or words; choice: one value of a list; number: whole numbers. */
export type FieldKind = 'text' | 'choice' | 'number';

export interface SearchField {
  key: string;
  label: string;
  kind: FieldKind;
  of: readonly Subject[];
  /** Serves to split: a row has one value of it, or none. Fields of the company are not offered to split people by. */
  splits?: readonly Subject[];
  values?: readonly string[];
  /** Smallest and largest number that occurs, where one is known. */
  from?: number;
  to?: number;
}

export const RANKS = [
  'owner',
  'director',
  'head',
  'manager',
  'lead',
  'senior',
  'staff',
  'assistant',
  'intern',
] as const;
export const TEAMS = [
  'quality',
  'production',
  'technical',
  'operations',
  'management',
  'engineering',
  'sales',
  'marketing',
  'finance',
  'administration',
  'logistics',
] as const;
export const HEADCOUNT_BANDS = ['1-4', '5-10', '11-50', '51-200', '201-500', '501+'] as const;

const P = ['people'] as const;
const C = ['companies'] as const;
const ALL = SUBJECTS;

/** Every condition there is, in the order in which it is shown and printed. */
export const SEARCH_FIELDS: readonly SearchField[] = [
  { key: 'title', label: 'Title', kind: 'text', of: P },
  { key: 'role', label: 'Role', kind: 'text', of: ['postings'] },
  { key: 'age', label: 'Age in days', kind: 'number', of: ['postings'], splits: ['postings'], from: 0, to: 400 },
  { key: 'level', label: 'Level', kind: 'choice', of: P, splits: P, values: RANKS },
  { key: 'team', label: 'Team', kind: 'choice', of: P, splits: P, values: TEAMS },
  { key: 'years', label: 'Years in role', kind: 'number', of: P, splits: P, from: 0, to: 50 },
  { key: 'company', label: 'Company', kind: 'text', of: ALL },
  { key: 'sector', label: 'Sector', kind: 'choice', of: ALL, splits: ['companies', 'postings'] },
  { key: 'country', label: 'Country', kind: 'choice', of: ALL, splits: ALL },
  { key: 'region', label: 'Region', kind: 'text', of: ALL },
  { key: 'city', label: 'City', kind: 'text', of: ALL },
  { key: 'headcount', label: 'Headcount', kind: 'choice', of: P, values: HEADCOUNT_BANDS },
  { key: 'employees', label: 'Headcount', kind: 'number', of: C, splits: C, from: 1, to: 5000 },
  { key: 'growth', label: 'Headcount growth, %', kind: 'number', of: C, splits: C, from: -100, to: 500 },
  { key: 'teamgrowth', label: 'Team growth, %', kind: 'number', of: C, splits: C, from: -100, to: 500 },
  { key: 'technology', label: 'Technology used', kind: 'text', of: C },
  { key: 'hiring', label: 'Hiring for', kind: 'text', of: ['people', 'companies'] },
  { key: 'past', label: 'Past company', kind: 'text', of: P },
  { key: 'school', label: 'School', kind: 'text', of: P },
  { key: 'certificate', label: 'Certificate', kind: 'text', of: P },
  { key: 'follows', label: 'Follows', kind: 'text', of: P },
  { key: 'keyword', label: 'Keyword', kind: 'text', of: ['people', 'companies'] },
];

export const searchField = (about: Subject, key: string): SearchField | undefined =>
  SEARCH_FIELDS.find((field) => field.key === key && field.of.includes(about));

/** `exact`: these words in this order, next to each other; else all of them in any order. */
export const term = z.object({ text: z.string().trim().min(1).max(200), exact: z.boolean() });
export type Term = z.infer<typeof term>;

/** Whole numbers from `from` to `to`, both included; null is open. */
export const range = z
  .object({ from: z.int().nullable(), to: z.int().nullable() })
  .refine(({ from, to }) => from === null || to === null || from <= to, 'from is larger than to');
export type Range = z.infer<typeof range>;

const fieldKey = z.string().max(40);
export const condition = z.union([
  z.object({ field: fieldKey, not: z.boolean(), terms: z.array(term).min(1).max(500) }),
  z.object({ field: fieldKey, not: z.boolean(), ranges: z.array(range).min(1).max(50) }),
]);
/** One of the terms or ranges holds; with `not`, none of them does. A row without a value fits only with `not`. */
export type Condition = z.infer<typeof condition>;

/** All conditions hold. */
export const search = z
  .object({ about: z.enum(SUBJECTS), conditions: z.array(condition).max(100) })
  .superRefine(({ about, conditions }, context) => {
    for (const [i, given] of conditions.entries()) {
      const field = searchField(about, given.field);
      if (!field || (field.kind === 'number') !== 'ranges' in given)
        context.addIssue({ code: 'custom', path: ['conditions', i], message: `${given.field} cannot be asked so` });
    }
  });
export type Search = z.infer<typeof search>;

/** What is known of a row that a search found: text, several texts, a number, or nothing. */
export type Found = Readonly<Record<string, string | readonly string[] | number | null | undefined>>;

export const withCondition = ({ about, conditions }: Search, more: Condition): Search => ({
  about,
  conditions: [...conditions, more],
});

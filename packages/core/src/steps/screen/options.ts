import * as z from 'zod';
import { ownValue } from '../../text/own-value';

export const RULE_FIELDS = [
  'any',
  'name',
  'title',
  'level',
  'team',
  'company',
  'sector',
  'headcount',
  'place',
  'domain',
  'email',
  'phone',
  'profile',
  'note',
] as const;
export type RuleField = (typeof RULE_FIELDS)[number];

/** Those who share a value of one of these can be kept or set aside together. */
export const GROUP_FIELDS = [
  'title',
  'level',
  'team',
  'company',
  'domain',
  'sector',
  'city',
  'region',
  'country',
] as const;
export type GroupField = (typeof GROUP_FIELDS)[number];

/** A field of the person's own, by its name. */
const ownField = z.templateLiteral(['own:', z.string().min(1).max(200)]);
const fate = z.enum(['keep', 'aside']);

/** Rows whose field says one of the words are set aside, or only those are kept. A star stands for any letters: `manag*`, `info@*`. */
export const wordRule = z.object({
  field: z.union([z.enum(RULE_FIELDS), ownField]),
  words: z.array(z.string().trim().min(1)).min(1).max(500),
  fate,
});
export type WordRule = z.infer<typeof wordRule>;

/** Rows whose field is blank, or has anything in it. */
export const blankRule = z.object({
  field: z.union([z.enum(RULE_FIELDS).exclude(['any']), ownField]),
  is: z.enum(['blank', 'filled']),
  fate,
});
export type BlankRule = z.infer<typeof blankRule>;

/**
 * Rows whose own field lies between two values, both among them; '' is no bound. Dates as ISO 8601, numbers as such. A headcount
 * that is a band lies where it may.
 */
export const rangeRule = z
  .object({
    field: z.union([z.literal('headcount'), ownField]),
    type: z.enum(['number', 'date']),
    from: z.string().max(40),
    to: z.string().max(40),
    fate,
  })
  .refine(({ type, from, to }) => [from, to].every((bound) => bound === '' || ownValue(type, bound) === bound), {
    error: 'a bound is not of the type of the field',
  })
  .refine(({ from, to }) => from !== '' || to !== '', { error: 'a range needs a bound' });
export type RangeRule = z.infer<typeof rangeRule>;

/** What a brief can ask for, in the order in which it is looked at. */
export const BRIEF_PARTS = ['place', 'sector', 'headcount', 'level', 'team', 'title'] as const;

const elsewhere = z.enum(['pass', 'look', 'aside']).default('pass');

export const screenOptions = z.object({
  rules: z
    .array(z.union([wordRule, rangeRule, blankRule]))
    .max(100)
    .default([]),
  /** Titles that a contact should have; a near one wants a look. Empty: any. */
  briefTitles: z.array(z.string().trim().min(1)).max(200).default([]),
  /** Levels and teams that the title must say, and places: a country's code, a region or a city. Empty: any. */
  briefLevels: z.array(z.string().max(40)).max(40).default([]),
  briefTeams: z.array(z.string().max(40)).max(40).default([]),
  briefPlaces: z.array(z.string().trim().min(1).max(100)).max(300).default([]),
  /** Sectors by any of their words, and how many a company may have; 0: no such limit. */
  briefSectors: z.array(z.string().trim().min(1).max(100)).max(300).default([]),
  briefHeadcountFrom: z.int().min(0).max(10_000_000).default(0),
  briefHeadcountTo: z.int().min(0).max(10_000_000).default(0),
  suppression: z.boolean().default(true),
  /** What becomes of those whom another job holds, and of those who left with another job's export. */
  heldElsewhere: elsewhere,
  leftElsewhere: elsewhere,
  /** 0: no limit. */
  atMostPerCompany: z.int().min(0).max(10_000).default(0),
});
export type ScreenOptions = z.output<typeof screenOptions>;

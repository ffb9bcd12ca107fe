import * as z from 'zod';

export const RULE_FIELDS = ['any', 'name', 'title', 'company', 'place', 'domain', 'email', 'note'] as const;
export type RuleField = (typeof RULE_FIELDS)[number];

/** Rows whose field says one of the words are set aside, or only those are kept. */
export const wordRule = z.object({
  field: z.enum(RULE_FIELDS),
  words: z.array(z.string().trim().min(1)).min(1).max(500),
  fate: z.enum(['keep', 'aside']),
});
export type WordRule = z.infer<typeof wordRule>;

export const screenOptions = z.object({
  rules: z.array(wordRule).max(100).default([]),
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
  /** 0: no limit. */
  atMostPerCompany: z.int().min(0).max(10_000).default(0),
});
export type ScreenOptions = z.output<typeof screenOptions>;

import * as z from 'zod';
import { ownField, screenRule } from './rules';

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

/** A standard field, or one of the person's own. */
export const groupBy = z.union([z.enum(GROUP_FIELDS), ownField]);
export type GroupBy = z.output<typeof groupBy>;

/** What a brief can ask for, in the order in which it is looked at. */
export const BRIEF_PARTS = ['place', 'sector', 'headcount', 'level', 'team', 'title'] as const;

/** Why somebody wants a look whom another job may hold: likely the same, or of one name where too little is known to say how likely. */
export const MAY_BE_ELSEWHERE = ['likely-elsewhere', 'alike-elsewhere'] as const;

const elsewhere = z.enum(['pass', 'look', 'aside']).default('pass');

export const screenOptions = z.object({
  rules: z.array(screenRule).max(100).default([]),
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

import * as z from 'zod';

/** What a website can answer. `unclear`: nothing it says decides. */
export const SITE_ANSWERS = ['yes', 'no', 'unclear'] as const;
export type SiteAnswer = (typeof SITE_ANSWERS)[number];

const words = z.array(z.string().trim().min(1).max(100)).max(200).default([]);
/** Per cent in a year, null: no bound. */
const growth = z.number().min(-100).max(100_000).nullable().default(null);
const people = z.int().min(0).max(10_000_000).default(0);

export const companyOptions = z.object({
  /** Id of the service that finds the domain of a company that has none; '': none does. */
  findBy: z.string().max(40).default(''),
  /** The directory is asked for it too, where one is set up. */
  findInDirectory: z.boolean().default(false),
  /** Asked of each company's own website; '': the sites are not read. */
  question: z.string().trim().max(200).default(''),
  /** Words that speak for a yes and for a no; a star is any letters. */
  speaksFor: words,
  speaksAgainst: words,
  /** Id of the language model that reads the sites; '': the words do. */
  readBy: z.string().max(40).default(''),
  /** What a person answered teaches the reader. */
  learns: z.boolean().default(true),
  /** An answer that is learned is given when at least so likely. */
  sureFrom: z.number().min(0.5).max(0.99).default(0.8),
  /** Id of the service that what it knows of each company is bought from; '': none. */
  detailsBy: z.string().max(40).default(''),
  /** Sectors by any of their words. Empty: any. */
  sectors: words,
  notSectors: words,
  /** 0: no bound. */
  headcountFrom: people,
  headcountTo: people,
  growthFrom: growth,
  growthTo: growth,
  /** A country's code, a region or a city. Empty: any. */
  places: words,
  /** At least one of these. Empty: any. */
  technology: words,
  hiring: words,
  /** Id of the service that knows what people read about; '': none is asked. */
  topicsBy: z.string().max(40).default(''),
  /** At least one of these is read about this week. Empty: any, or nothing. */
  topics: words,
  /** Domains and names. */
  competitors: words,
  /** Companies whose website reads at least so like that of a competitor are out too, 0 to 1; 0: none. */
  likeCompetitors: z.number().min(0).max(1).default(0),
});
export type CompanyOptions = z.output<typeof companyOptions>;

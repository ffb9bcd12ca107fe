import * as z from 'zod';

/** The steps of a sieve, in order. */
export const STEP_KINDS = ['tidy', 'match', 'screen', 'append', 'verify'] as const;
export type StepKind = (typeof STEP_KINDS)[number];

export const RULE_FIELDS = ['any', 'name', 'title', 'company', 'place', 'domain', 'email', 'note'] as const;
export type RuleField = (typeof RULE_FIELDS)[number];

/** Rows whose field says one of the words are set aside, or only those are kept. */
export const wordRule = z.object({
  field: z.enum(RULE_FIELDS),
  words: z.array(z.string().trim().min(1)).min(1).max(500),
  fate: z.enum(['keep', 'aside']),
});
export type WordRule = z.infer<typeof wordRule>;

const likelihoodLine = z.number().min(0).max(1);

export const tidyOptions = z.object({
  kind: z.literal('tidy'),
  /** ISO 3166 country in which phones without a country code are read. */
  phoneCountry: z.string().length(2).default('GB'),
});
export const matchOptions = z.object({
  kind: z.literal('match'),
  on: z.boolean().default(true),
  /** Pairs at least this likely are merged. */
  mergeFrom: likelihoodLine.default(0.9),
  /** Pairs less likely than this stay apart; those between are judged by a person. */
  judgeFrom: likelihoodLine.default(0.3),
  /** Which value survives a merge. */
  survivor: z.enum(['fullest', 'first', 'latest']).default('fullest'),
});
export const screenOptions = z.object({
  kind: z.literal('screen'),
  rules: z.array(wordRule).max(100).default([]),
  /** Titles that a contact should have; a near one wants a look. Empty: any. */
  briefTitles: z.array(z.string().trim().min(1)).max(200).default([]),
  suppression: z.boolean().default(true),
  /** 0: no limit. */
  atMostPerCompany: z.int().min(0).max(10_000).default(0),
});
export const appendOptions = z.object({
  kind: z.literal('append'),
  on: z.boolean().default(true),
  /** How many addresses made from the name are tried before a finder is asked. */
  candidates: z.int().min(0).max(12).default(5),
  /** Finders in lookup order, by their id in the settings. */
  finders: z.array(z.string()).max(10).default([]),
});
export const verifyOptions = z.object({
  kind: z.literal('verify'),
  on: z.boolean().default(true),
});

export const stepOptions = z.discriminatedUnion('kind', [
  tidyOptions,
  matchOptions,
  screenOptions,
  appendOptions,
  verifyOptions,
]);
export type StepOptions = z.infer<typeof stepOptions>;
export type OptionsOf<K extends StepKind> = Extract<StepOptions, { kind: K }>;

/** The options of every step of one sieve. */
export type Steps = { [K in StepKind]: OptionsOf<K> };

export const defaultSteps = (): Steps => ({
  tidy: tidyOptions.parse({ kind: 'tidy' }),
  match: matchOptions.parse({ kind: 'match' }),
  screen: screenOptions.parse({ kind: 'screen' }),
  append: appendOptions.parse({ kind: 'append' }),
  verify: verifyOptions.parse({ kind: 'verify' }),
});

export const withOptions = (steps: Steps, options: StepOptions): Steps => ({ ...steps, [options.kind]: options });

import { PERSON_FIELDS } from '@sieve/core/model/person';
import { COMPANY_FIELDS } from '@sieve/core/model/company';
import { PHONE_KINDS, PHONE_PASSES } from '@sieve/core/model/phone';
import * as z from 'zod';

// Schemas of what core computes, for the routes that answer with it.

export const id = z.int().positive();
/** ms since 1970. */
export const at = z.int();
export const count = z.int().min(0);
export const personField = z.enum(PERSON_FIELDS);
export const person = z.record(personField, z.string());
export const company = z.record(z.enum(COMPANY_FIELDS), z.string());
export const facts = z.record(z.string(), z.union([z.string(), z.number()]));

export const fate = z.object({
  step: z.string().nullable(),
  state: z.enum(['pass', 'aside', 'look', 'waits']),
  code: z.string(),
  why: facts,
});
export const firm = z.object({
  answer: z.enum(['yes', 'no', 'unclear', '']),
  yes: z.number(),
  by: z.enum(['words', 'learned', 'model', 'hand', '']),
  growth: z.number().nullable(),
  technology: z.array(z.string()).readonly(),
  hiring: z.array(z.string()).readonly(),
  topics: z.array(z.string()).readonly().nullable(),
});
export const knownPhone = z.object({
  kind: z.enum(PHONE_KINDS),
  pass: z.enum(PHONE_PASSES).nullable(),
  listedAs: z.string(),
  sure: z.number(),
  doubted: z.boolean(),
  others: z.array(z.string()),
});
export const change = z.object({ field: personField, was: z.string(), is: z.string(), why: z.array(z.string()) });
export const issue = z.object({ code: z.string(), field: z.string(), input: z.string() });
export const rowIssue = issue.extend({ line: z.int(), kept: z.boolean() });
export const evidence = z.object({ field: z.string(), level: z.int().min(0).max(4), bits: z.number() });

import { CONTACT_PARTS } from '@sieve/core/model/contact-parts';
import { suppressionEntry } from '@sieve/core/model/suppression';
import * as z from 'zod';
import { at, count, fate, id } from './model';
import { bringIn } from './sources';

const because = suppressionEntry.pick({ why: true, until: true });
/** Who is named in lines, and why nobody may contact them. */
export const newSuppressions = because.extend({ text: z.string().min(1).max(5_000_000) });
export type NewSuppressions = z.input<typeof newSuppressions>;
/** A file that was sent before, whose rows name who must not be contacted. */
export const suppressionFile = because.extend(
  bringIn.pick({ uploadId: true, name: true, format: true, columns: true }).shape,
);
export type SuppressionFile = z.input<typeof suppressionFile>;
export const suppressionRow = suppressionEntry.required().extend({ key: z.string(), at });
export type SuppressionRow = z.output<typeof suppressionRow>;
/** `known`: entries that were on the list before. */
export const suppressed = z.object({ added: count, known: count, refused: z.array(z.string()) });
export type Suppressed = z.output<typeof suppressed>;
/** `nameless`: rows that name nobody. */
export const suppressedFile = z.object({ added: count, known: count, nameless: count });
export type SuppressedFile = z.output<typeof suppressedFile>;

export const findQuery = z.object({ q: z.string().trim().min(2).max(100) });
/** Somebody held in a job, found by the beginning of a name, of the company's name or of the address. */
export const foundContact = z.object({
  jobId: id,
  contact: id,
  name: z.string(),
  company: z.string(),
  email: z.string(),
  /** Where it stands in the job's sieve. */
  step: z.string(),
  fate: fate.shape.state,
});
export type FoundContact = z.output<typeof foundContact>;

const named = z.object({ id, name: z.string() });
/** What has some words in its name, of what a server holds. */
export const foundThings = z.object({
  contacts: z.array(foundContact),
  searches: z.array(named),
  pickLists: z.array(named),
  sources: z.array(named.extend({ jobId: id })),
});
export type FoundThings = z.output<typeof foundThings>;

/** Somebody who is held, with what was done with them. */
export const heldContact = z.object({
  jobId: id,
  contact: id,
  name: z.string(),
  title: z.string(),
  company: z.string(),
  email: z.string(),
  step: z.string(),
  fate: fate.shape.state,
  /** When they left with an export last; null: never. */
  exportedAt: at.nullable(),
});
export type HeldContact = z.output<typeof heldContact>;

/** A contact as it is typed, or read in what was pasted; parts left out are blank. */
export const typedContact = z.partialRecord(z.enum(CONTACT_PARTS), z.string().max(2000));
export type TypedContact = z.output<typeof typedContact>;
export const contactText = z.object({ text: z.string().min(1).max(20_000) });
export const heldAlready = z.object({
  contacts: z.array(heldContact),
  exportedAt: at.nullable(),
  suppressed: z.boolean(),
});
export type HeldAlready = z.output<typeof heldAlready>;
export const contactAdded = z.object({ sourceId: id });

export const lookUpQuery = z.object({ q: z.string().trim().min(3).max(500) });
/** What is held of a firm by its website, or of a person by their profile link. */
export const lookedUp = z.object({
  about: z.enum(['firm', 'person']),
  /** The domain, or the link in its one form. */
  key: z.string(),
  company: z.string(),
  contacts: z.array(heldContact),
  suppressed: z.boolean(),
});
export type LookedUp = z.output<typeof lookedUp>;

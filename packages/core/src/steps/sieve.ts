import * as z from 'zod';
import { STEPS } from './registry';
import type { Step } from './step';

/** One step of a job's sieve; its id stays when it is moved or set up anew. */
export const sieveStep = z.object({
  id: z.string().min(1).max(60),
  kind: z.string().max(60),
  on: z.boolean(),
  options: z.record(z.string(), z.unknown()),
});
export type SieveStep = z.infer<typeof sieveStep>;

/** The ordered steps of a job. */
export type Sieve = readonly SieveStep[];

/** The sieve that a job begins with. */
export const defaultSieve = (): Sieve => STEPS.map((step) => newStep(step, !step.startsOff));

const newStep = ({ kind, options }: Step, on: boolean): SieveStep => ({
  id: kind,
  kind,
  on,
  options: options.parse({}) as SieveStep['options'],
});

/** A sieve of before with the optional steps that it lacks, turned off, each where a new sieve has it. */
export function completedSieve(sieve: Sieve): Sieve {
  return STEPS.reduce<Sieve>((steps, step, at) => {
    if (!step.startsOff || steps.some(({ kind }) => kind === step.kind)) return steps;
    const before = STEPS.slice(0, at).map(({ kind }) => kind);
    const place = steps.findLastIndex(({ kind }) => before.includes(kind)) + 1;
    return steps.toSpliced(place, 0, newStep(step, false));
  }, sieve);
}

/** Why a sieve cannot be so: a step of an unknown kind, before what it needs, off though it is always on; null when it can. */
export function faultOf(sieve: Sieve): string | null {
  for (const [i, { id, kind, on, options }] of sieve.entries()) {
    const step = STEPS.find((known) => known.kind === kind);
    if (!step) return `${kind}: there is no such step`;
    if (sieve.findIndex((other) => other.id === id) !== i) return `${id}: it is there twice`;
    if (!on && !step.optional) return `${id}: it is always on`;
    const late = sieve.slice(i + 1).find((later) => step.after.includes(later.kind));
    if (late) return `${id}: it stands after ${late.id}`;
    const read = step.options.safeParse(options);
    if (!read.success) return `${id}: ${z.prettifyError(read.error)}`;
  }
  return null;
}

/** A sieve with one step set up anew. Its options are completed; a step that the sieve lacks changes nothing. */
export const withStep = (sieve: Sieve, step: SieveStep): Sieve =>
  sieve.map((known) => (known.id === step.id ? { ...step, options: completed(step) } : known));

const completed = ({ kind, options }: SieveStep) => {
  const read = STEPS.find((step) => step.kind === kind)?.options.safeParse(options);
  return read?.success ? (read.data as SieveStep['options']) : options;
};

/** The first step of a kind, with its options; those of a new sieve when it has none. */
export function stepIn<O>(
  sieve: Sieve,
  { kind, options }: Pick<Step<O>, 'kind' | 'options'>,
): { on: boolean; options: O } {
  const found = sieve.find((step) => step.kind === kind);
  return { on: found?.on ?? false, options: options.parse(found?.options ?? {}) };
}

/** Where a step stands; a contact that passed all has stopped behind the last. */
export const positionOf = (sieve: Sieve, id: string | null): number => {
  const at = sieve.findIndex((step) => step.id === id);
  return at < 0 ? sieve.length : at;
};

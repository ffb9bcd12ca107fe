import { LEVELS } from './compare';

/** A pair that a person judged: what was seen of it, and the bits that this weighed. */
export interface JudgedPair {
  levels: readonly number[];
  bits: number;
  same: boolean;
}

/** Bits by which a level of a field speaks more for one person, or less, than the list alone taught; by field and level. */
export type TaughtBits = readonly (readonly number[])[];

/** So many judgements teach. */
export const LEAST_JUDGED = 8;
/** Bits by which a weight is off at a guess, before anything is judged. */
const SPREAD = 1.5;
const ROUNDS = 60;

/**
 * What judged pairs teach about the weights: logistic regression from the bits that they weigh, penalised by the square of what is added
 * (a normal prior), by Newton's steps along one weight after the other. Since it only ever asks how sure a pair with these levels is,
 * it does no harm that the judged ones are the doubtful ones.
 *
 * @returns null while there are too few
 */
export function teach(judged: readonly JudgedPair[]): TaughtBits | null {
  if (judged.length < LEAST_JUDGED) return null;
  const fields = judged[0]!.levels.length;
  const added = Array.from({ length: fields }, () => new Array<number>(LEVELS).fill(0));
  const margins = judged.map(({ bits }) => bits * Math.LN2);
  const holders = new Map<string, { field: number; level: number; at: number[] }>();
  for (const [i, { levels }] of judged.entries())
    for (const [field, level] of levels.entries()) {
      if (level === 0) continue;
      const known = holders.get(`${field} ${level}`);
      if (known) known.at.push(i);
      else holders.set(`${field} ${level}`, { field, level, at: [i] });
    }
  const prior = 1 / (SPREAD * Math.LN2) ** 2;
  for (let round = 0; round < ROUNDS; round++)
    for (const { field, level, at } of holders.values()) {
      const weight = added[field]![level]!;
      let gradient = weight * prior;
      let curve = prior;
      for (const i of at) {
        const chance = 1 / (1 + Math.exp(-margins[i]!));
        gradient += chance - Number(judged[i]!.same);
        curve += Math.max(chance * (1 - chance), 1e-6);
      }
      const step = Math.max(-1, Math.min(1, -gradient / curve));
      added[field]![level] = weight + step;
      for (const i of at) margins[i]! += step;
    }
  return added.map((levels) => levels.map((nats) => nats / Math.LN2));
}

/** Bits that a pair weighs more, by what was judged. */
export const taughtBits = (taught: TaughtBits | null, levels: readonly number[]): number =>
  taught ? levels.reduce((sum, level, field) => sum + (taught[field]![level] ?? 0), 0) : 0;

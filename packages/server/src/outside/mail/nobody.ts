import { randomBytes, randomInt } from 'node:crypto';

/** Parts of names that no list of names holds. */
const HEADS = ['tarn', 'wyver', 'holm', 'skel', 'brind', 'fenner', 'quill', 'ostr', 'marl', 'dunn'];
const TAILS = ['wick', 'aby', 'sedge', 'holt', 'ovan', 'ingale', 'mere', 'thorpe', 'eby', 'lund'];
const pick = (from: readonly string[]): string => from[randomInt(from.length)]!;

/** A local part that nobody has and that is seen to be made up. */
export const randomLocal = (): string => randomBytes(9).toString('hex');

/** One that nobody has and that looks like a person's: what takes mail for anybody may refuse what looks made up. */
export const likelyLocal = (): string => `${pick(HEADS)}${pick(TAILS)}.${pick(HEADS)}${pick(TAILS)}`;

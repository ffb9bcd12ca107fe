import { roundedDown } from './rounded-down';

/** A chance in words. */
export const sureWords = (chance: number): string => (chance === 1 ? 'sure' : `${roundedDown(chance * 100, 0)} % sure`);

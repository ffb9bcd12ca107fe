import { isFirstName } from '../words/first-names';
import { isRole } from '../words/mail';
import { nameCase } from './person-name';

/** Two words with a dot, an underscore or a hyphen between, and figures that tell namesakes apart. */
const TWO_WORDS = /^(\p{L}{2,})[._-](\p{L}{2,})\d{0,3}$/u;

/**
 * The name that an address says almost for sure: a known first name and another word, in either order. One that could be read in two ways says none.
 *
 * @example nameFromEmail('oakhill.maren2@tidewell.example') // { firstName: 'Maren', lastName: 'Oakhill' }
 */
export function nameFromEmail(email: string): { firstName: string; lastName: string } | null {
  const [, one, other] = TWO_WORDS.exec(email.slice(0, email.lastIndexOf('@')).split('+')[0]!) ?? [];
  if (!one || !other || isRole(`${one}@`) || isRole(`${other}@`)) return null;
  const [isFirst, isSecond] = [isFirstName(one), isFirstName(other)];
  // Of two first names (james.martin) the one in front is it, as nearly all firms write them.
  if (!isFirst && !isSecond) return null;
  const [first, last] = isFirst ? [one, other] : [other, one];
  return { firstName: nameCase(first, false), lastName: nameCase(last, false) };
}

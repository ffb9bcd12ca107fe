import { fold } from '../../text/fold';

const lettersOf = (text: string): string => fold(text).replace(/\P{L}/gu, '');

/**
 * Whether an address could be made of a name: what stands before the @, without figures and signs, is the first letters of both names or of one,
 * in either order.
 */
export function fitsName(email: string, name: { firstName: string; lastName: string }): boolean {
  const local = lettersOf(email.slice(0, email.lastIndexOf('@')).split('+')[0]!);
  const [first, last] = [lettersOf(name.firstName), lettersOf(name.lastName)];
  const isMadeOf = (one: string, other: string) =>
    Array.from({ length: local.length + 1 }, (_, at) => at).some(
      (at) => one.startsWith(local.slice(0, at)) && other.startsWith(local.slice(at)),
    );
  return local !== '' && (isMadeOf(first, last) || isMadeOf(last, first));
}

import { phonePlan } from '../../tidy/phone';
import type { ListedPhone } from '../../facts/phones';
import type { Contact } from '../../model/contact';
import type { PhoneKind } from '../../model/phone';
import { fold } from '../../text/fold';

/** Who carries which number. */
export interface Lines {
  /** How many people of somebody's firm carry a number, themselves included. */
  inFirm: (number: string, firm: string) => number;
  /** Whether people of another firm carry it. */
  elsewhere: (number: string, firm: string) => boolean;
}

type Employed = Pick<Contact, 'firmKey' | 'person'>;

/** By what a firm is known, '' where none is. */
export const firmOf = ({ firmKey, person }: Employed): string => firmKey || person.domain || fold(person.company);

export function linesOf(carried: Iterable<{ number: string; firm: string }>): Lines {
  const firms = new Map<string, Map<string, number>>();
  for (const { number, firm } of carried) {
    const of = firms.get(number) ?? new Map<string, number>();
    of.set(firm, (of.get(firm) ?? 0) + 1);
    firms.set(number, of);
  }
  return {
    inFirm: (number, firm) => (firm === '' ? 0 : (firms.get(number)?.get(firm) ?? 0)),
    elsewhere: (number, firm) =>
      firm !== '' && [...(firms.get(number)?.keys() ?? [])].some((other) => other !== '' && other !== firm),
  };
}

/**
 * What a number reaches: by its numbering plan, by an extension, by being shared in the firm, by what a service says, in this order.
 *
 * @param inFirm how many of the firm carry it
 */
export function phoneKind(number: string, says: ListedPhone['kind'], inFirm: number): PhoneKind {
  const plan = phonePlan(number);
  if (plan === 'mobile') return 'mobile';
  if (number.includes(';ext=')) return 'direct';
  if (plan === 'service' || inFirm > 1) return 'switchboard';
  return says ?? (plan === 'fixed' ? 'landline' : 'unclear');
}
